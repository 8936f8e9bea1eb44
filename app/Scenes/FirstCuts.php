<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Exceptions\UserError;
use App\Models\Scene;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Coverage\Cover;
use CrispReel\Core\Coverage\Style;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;

/** First cuts of an action: shots with what they show, and the edits that make them, in each style. */
final class FirstCuts
{
    /** Frames: shorter, there is nothing to cut. */
    private const LEAST = 36;

    /** People who take part at once. */
    private const MOST = 12;

    public function __construct(private readonly SceneStream $stream, private readonly AssetSource $assets, private readonly Memory $memory)
    {
    }

    /**
     * @param  list<string>  $people  ids or names of performers; empty: all
     * @return array<string, array{
     *     title: string, shots: list<array<string, mixed>>, facts: array<string, mixed>, commands: list<array<string, mixed>>
     * }> by style
     */
    public function of(Scene $scene, array $people, int $from, ?int $to): array
    {
        $compiled = $this->stream->compile($scene);
        $d = $compiled->document;
        $to = min($to ?? $compiled->frames, $compiled->frames);
        if ($to - $from < self::LEAST) {
            throw new UserError('coverage.span', 'That span is too short to be cut.', 'Choose at least a second and a half.');
        }
        $people = self::people($d, $people);
        $cover = new Cover($compiled, $this->assets, $this->memory, $people, $from, $to, new Gate($d->width / $d->height));
        if ($cover->candidates === []) {
            throw new UserError('coverage.none', 'No set-up shows them there.', 'Make room around them, or choose others.');
        }
        $out = [];
        foreach (Style::names() as $style) {
            $cut = $cover->cut($style);
            $out[$style] = [
                'title' => Style::named($style)->title, 'facts' => $cover->facts($style, $cut),
                'shots' => array_map(static fn (array $s): array => [
                    'from' => $s['from'], 'to' => $s['to'], 'title' => $s['candidate']->title, 'role' => $s['candidate']->role,
                    'view' => get_object_vars($s['view']),
                ], $cut),
                'commands' => array_map(static fn (Command $c): array => $c->toArray(), Cover::commands($cut)),
            ];
        }

        return $out;
    }

    /**
     * @param  list<string>  $wanted
     * @return list<string> ids
     */
    private static function people(Document $d, array $wanted): array
    {
        $out = [];
        foreach ($d->items as $item) {
            if ($item->kind === 'performer' && ($wanted === [] || array_intersect([$item->id, $item->name], $wanted) !== [])) {
                $out[] = $item->id;
            }
        }

        return match (true) {
            $out === [] => throw new UserError('coverage.nobody', 'Nobody is chosen who could be filmed.', 'Choose one or more people.'),
            count($out) > self::MOST => throw new UserError(
                'coverage.many', count($out).' people are more than one action.', 'Choose up to '.self::MOST.' who matter.',
            ),
            default => $out,
        };
    }
}

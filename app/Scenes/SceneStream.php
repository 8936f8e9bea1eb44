<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Assets\Dresser;
use App\Models\Scene;
use Closure;
use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Bake\Track;
use CrispReel\Core\Bake\TrackNames;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\GivingWay;
use CrispReel\Core\Compile\Heard;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Compile\Whereabouts;
use CrispReel\Core\Coverage\Lookout;
use CrispReel\Core\Coverage\Proposal;
use CrispReel\Core\Coverage\SetUps;
use CrispReel\Core\Coverage\Stand;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Moods;
use CrispReel\Core\Reel\Blend;
use CrispReel\Core\Reel\Blends;
use CrispReel\Core\Speech\Script;
use CrispReel\Core\Speech\Word;

/** What a drawing page needs of a scene: the manifest, and pieces of its tracks by name, computed when first asked for. */
final class SceneStream
{
    public function __construct(
        private readonly AssetSource $assets,
        private readonly PieceStore $pieces,
        private readonly Dresser $dresser,
        private readonly Memory $memory,
    ) {
    }

    public function compile(Scene $scene): CompiledScene
    {
        return SceneCompiler::compile(DocumentBuilder::build($scene), $this->assets, $this->memory);
    }

    public function compileDocument(Document $document): CompiledScene
    {
        return SceneCompiler::compile($document, $this->assets, $this->memory);
    }

    /**
     * @param  array<string, string>  $light  lighter copies by the blob that they stand for
     * @return array<string, mixed>
     */
    public function manifest(CompiledScene $scene, array $light = []): array
    {
        $d = $scene->document;
        $items = self::tracks($scene, PoseStream::items($scene));
        $cameras = self::tracks($scene, PoseStream::cameras($scene));
        $beats = [];
        foreach ($scene->lanes as $lane) {
            foreach ([...$lane->segments, ...$lane->layers] as $s) {
                $beats[$s->beat] = [
                    'start' => $s->start, 'end' => round($s->end, 3), 'seconds' => round($s->table->seconds(), 4),
                    'loops' => $s->table->loops,
                ];
            }
        }

        return [
            'frames' => $scene->frames, 'rate' => [$d->rate->num, $d->rate->den], 'width' => $d->width, 'height' => $d->height,
            'mood' => $d->mood, 'look' => $this->look($d),
            'pieceFrames' => PoseStream::PIECE, 'pieces' => PoseStream::pieces($scene), 'beats' => (object) $beats,
            'assets' => array_values(array_map(
                static fn ($a): array => ['id' => $a->id, 'kind' => $a->kind, 'name' => $a->name, 'blob' => $a->blob],
                array_filter($d->assets, static fn ($a): bool => ! in_array($a->kind, ['motion', 'reading', 'sound'], true)),
            )),
            'items' => array_values(array_map(fn ($i): array => [
                'id' => $i->id, 'kind' => $i->kind, 'name' => $i->name, 'tape' => $i->tape, 'cloth' => $i->cloth?->toArray(),
                'fullness' => $i->fullness,
                'blob' => $this->dresser->blob($light[$d->assets[$i->asset]->blob] ?? $d->assets[$i->asset]->blob, $i->surfaces),
                'joints' => isset($scene->lanes[$i->id]) ? $scene->lanes[$i->id]->figure->skeleton->names : [],
                'jointNodes' => $this->assets->digest($d->assets[$i->asset])['jointNodes'] ?? [],
                'hips' => isset($scene->lanes[$i->id]) ? $scene->lanes[$i->id]->figure->hips : 0,
                'face' => isset($scene->lanes[$i->id]) ? Whereabouts::faceOf($scene->lanes[$i->id]->figure) : null,
                'morphs' => isset($scene->lanes[$i->id]) ? $scene->lanes[$i->id]->figure->morphs : [],
                'mounts' => array_keys((array) ($this->assets->digest($d->assets[$i->asset])['mounts'] ?? [])),
                'extras' => $this->assets->digest($d->assets[$i->asset])['extras'] ?? [],
                'bounds' => $this->assets->digest($d->assets[$i->asset])['bounds'] ?? [[0, 0, 0], [0, 0, 0]],
                'track' => $items[$i->id],
            ], $d->items)),
            'cameras' => array_values(array_map(
                static fn ($c): array => [
                    'id' => $c->id, 'letter' => $c->letter, 'name' => $c->name, 'sensorWidthMm' => $c->sensorWidthMm,
                    'wallsAway' => $c->wallsAway,
                    'track' => $cameras[$c->id],
                ],
                $d->cameras,
            )),
            'shots' => array_map(static fn ($s): array => $s->toArray(), $scene->shots),
            'blends' => array_map(static fn (Blend $b): array => $b->toArray(), Blends::of($scene->shots)),
            'notes' => array_map(static fn ($n): array => $n->toArray(), $scene->notes),
            'lines' => array_map(fn (Utterance $u): array => $this->line($u, $d), $scene->utterances),
            'sounds' => array_values(array_map(
                static fn (Heard $h): array => SoundManifest::sound($h, $d),
                array_filter($scene->heard, static fn (Heard $h): bool => $h->noise === null),
            )),
            'noises' => SoundManifest::noises($scene->heard, $d),
            'lowering' => GivingWay::of($scene)->corners(),
        ];
    }

    /** @return array<string, mixed> when a line is spoken, its words, the sound that it was read as, and which part of a recording it is */
    private function line(Utterance $u, Document $d): array
    {
        $r = static fn (float $frame): float => round($frame, 2);

        return [
            'id' => $u->line->id, 'item' => $u->line->item, 'start' => $r($u->start), 'end' => $r($u->end), 'from' => $r($u->from),
            'to' => $r($u->to), 'heard' => Script::heard($u->line->text), 'sound' => $d->assets[$u->line->reading]->blob ?? null,
            'take' => $u->line->reading === '' ? null : $this->assets->digest($d->assets[$u->line->reading])['source'] ?? null,
            'words' => array_map(
                static fn (Word $w): array => [$w->text, $r($u->frame($w->from)), $r($u->frame($w->to))], $u->reading->words,
            ),
        ];
    }

    /** @return array<string, mixed> the mood's, on the ground that belongs to what lies all round, if anything does */
    private function look(Document $d): array
    {
        $look = Moods::look($d->mood);
        foreach ($d->items as $item) {
            $extras = $this->assets->digest($d->assets[$item->asset])['extras'] ?? [];
            $ground = is_array($extras) && isset($extras['backdrop']) ? $extras['ground'] ?? null : null;
            if (is_string($ground) && preg_match('/^#[0-9a-f]{6}$/', $ground) === 1 && is_array($look['ground'] ?? null)) {
                $look['ground'] = [$ground, $look['ground'][1] ?? 0.8];
            }
        }

        return $look;
    }

    /** @return list<array<string, mixed>> what may be taken for whom is selected */
    public function setUps(CompiledScene $scene, SetUpWish $wish): array
    {
        if (! isset($scene->document->items[$wish->subject])) {
            return [];
        }
        $gate = new Gate($scene->document->width / $scene->document->height);
        $stand = new Stand($scene, $this->assets, $this->memory, min($wish->frame, max(0, $scene->frames - 1)), $gate);
        $partner = isset($scene->document->items[$wish->partner]) ? $wish->partner : null;

        return array_map(
            static fn (Proposal $p): array => $p->toArray(),
            (new SetUps($stand))->of($wish->subject, $partner, $wish->sideDeg, $wish->height, $wish->hand, $wish->others),
        );
    }

    /** @return list<array<string, mixed>> what cameras that know whom they film lose on the reel */
    public function lookout(CompiledScene $scene): array
    {
        return array_map(static fn (Finding $f): array => $f->toArray(), (new Lookout($scene, $this->assets, $this->memory))->findings());
    }

    /**
     * @param  array<string, Track>  $tracks
     * @return array<string, array<string, mixed>> as the manifest tells them, with the names of their pieces
     */
    private static function tracks(CompiledScene $scene, array $tracks): array
    {
        $names = PoseStream::names($scene, $tracks);

        return array_map(
            static fn (Track $t): array => $t->toArray() + ($t->still === null ? ['pieces' => $names[$t->id]] : []),
            $tracks,
        );
    }

    /**
     * @param  array<string, mixed>  $manifest
     * @return list<string> names of piece $n of all that moves, as a manifest tells them
     */
    public static function named(array $manifest, int $n): array
    {
        $out = [];
        foreach (['items', 'cameras'] as $list) {
            foreach ($manifest[$list] as $of) {
                if (isset($of['track']['pieces'][$n])) {
                    $out[] = $of['track']['pieces'][$n];
                }
            }
        }

        return $out;
    }

    /**
     * Piece $n of the tracks that have these names in it; a name that the scene has not is left out.
     *
     * @param  list<string>  $names
     * @param  Closure(): CompiledScene  $scene  asked only for what is not kept
     * @return array<string, string> bytes by name
     */
    public function pieces(int $n, array $names, Closure $scene): array
    {
        $out = $this->kept($names);

        return count($out) === count($names) ? $out : $out + $this->bake($scene(), $n, array_diff($names, array_keys($out)));
    }

    /**
     * @param  list<string>  $names
     * @return array<string, string> bytes of those that are kept
     */
    public function kept(array $names): array
    {
        return array_filter(array_combine($names, array_map($this->pieces->get(...), $names)), is_string(...));
    }

    /**
     * @param  array<string>  $names
     * @return array<string, string>
     */
    private function bake(CompiledScene $scene, int $n, array $names): array
    {
        if ($n < 0 || $n >= PoseStream::pieces($scene)) {
            return [];
        }
        $wanted = array_flip($names);
        $of = new TrackNames($scene);
        $found = [];
        foreach (PoseStream::moving($scene) as $track) {
            $name = $of->of($track, $n);
            if (isset($wanted[$name])) {
                $found[$name] = $track;
            }
        }
        $baked = array_combine(array_keys($found), PoseStream::bake($scene, array_values($found), $n, $this->memory));
        foreach ($baked as $name => $bytes) {
            $this->pieces->put($name, $bytes);
        }

        return $baked;
    }
}

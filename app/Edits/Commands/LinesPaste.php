<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Line;
use CrispReel\Core\Speech\Page;
use Illuminate\Support\Facades\DB;

/**
 * A page of dialogue with names before colons: a line for each. Names that nobody in the scene has are told all at once; "who"
 * says whom they mean, or "" that they are left out.
 */
final class LinesPaste implements EditCommand
{
    private const MOST = 200_000;

    public function name(): string
    {
        return 'lines.paste';
    }

    public function rules(): array
    {
        return [
            'page' => 'required|string|max:'.self::MOST, 'who' => 'sometimes|array', 'after' => 'sometimes|nullable',
            'gestures' => 'sometimes|boolean',
        ] + RowRules::only(Line::class, 'start');
    }

    public function apply(EditContext $scene, array $in): string
    {
        $said = Page::lines((string) $in['page']);
        if ($said === []) {
            throw new UserError('lines.none', 'There is no line in it.', 'Write each as a name, a colon, and what is said.');
        }
        $who = $this->people($scene, $said, (array) ($in['who'] ?? []));
        $place = array_intersect_key($in, ['after' => 1, 'start' => 1]);
        $count = 0;
        foreach ($said as $line) {
            $item = $who[mb_strtolower($line['name'])];
            if ($item === null) {
                continue;
            }
            $more = array_intersect_key($in, ['gestures' => 1]) + ($line['delivery'] === '' ? [] : ['delivery' => $line['delivery']]);
            foreach (mb_str_split($line['text'], Line::MOST) as $text) {
                (new LineAdd)->apply($scene, ['item' => $item, 'text' => $text, 'as' => '$pasted'] + $more + $place);
                $place = ['after' => '$pasted'];
                $count++;
            }
        }

        return $count === 1 ? 'Paste a line' : "Paste {$count} lines";
    }

    /**
     * @param  list<array{name: string, text: string, delivery: string}>  $said
     * @param  array<array-key, mixed>  $told
     * @return array<string, int|null> item by name in lower case; null: left out
     */
    private function people(EditContext $scene, array $said, array $told): array
    {
        $there = [];
        foreach (DB::table('items')->where('scene_id', $scene->scene->id)->where('kind', 'performer')->orderBy('id')->get() as $item) {
            $there[mb_strtolower((string) $item->name)] = (int) $item->id;
        }
        $told = array_change_key_case(array_filter($told, static fn (mixed $v): bool => is_int($v) || is_string($v)));
        $out = $unknown = [];
        foreach ($said as $line) {
            $name = mb_strtolower($line['name']);
            if (array_key_exists($name, $told)) {
                $out[$name] = $told[$name] === '' ? null : (int) $scene->find('items', $told[$name])->id;
            } elseif (isset($there[$name])) {
                $out[$name] = $there[$name];
            } else {
                $unknown[$name] = $line['name'];
            }
        }
        if ($unknown !== []) {
            throw new UserError(
                'lines.unknown',
                'Nobody in this scene is called '.implode(' or ', array_map(static fn (string $n): string => "\"{$n}\"", $unknown)).'.',
                'Say who is meant by each name, or leave their lines out; nothing was changed.',
            );
        }

        return $out;
    }
}

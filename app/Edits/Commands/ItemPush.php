<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Staging\Push;

/**
 * A performer walks behind a thing with grips and pushes it where the points lead: a walk to its back, the push, the
 * thing's route, and both hands on the grips.
 */
final class ItemPush implements EditCommand
{
    public function name(): string
    {
        return 'item.push';
    }

    public function rules(): array
    {
        return [
            'item' => 'required', 'by' => 'required', 'points' => 'required|array|min:1|max:200', 'points.*' => 'array|size:2',
            'points.*.*' => 'numeric|between:-100000,100000',
            'start' => 'sometimes|integer|between:0,1000000', 'speed' => 'sometimes|numeric|between:0.3,2',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        $who = $scene->find('items', $in['by']);
        $walk = $scene->asset('walk');
        $version = $walk->versions()->orderByDesc('number')->firstOrFail();
        $points = array_map(static function (mixed $p): array {
            [$x, $z] = array_values((array) $p);

            return [(float) $x, (float) $z];
        }, array_values((array) $in['points']));
        $scene->carryOut(Push::of(
            $scene->document(), $scene->assets, app(Memory::class),
            new AssetRef("a{$walk->id}", 'motion', $walk->name, $version->blob, $version->digest),
            "i{$who->id}", "i{$item->id}", $points, isset($in['start']) ? (int) $in['start'] : null, (float) ($in['speed'] ?? 0.85),
        ));

        return "{$who->name} pushes {$item->name}";
    }
}

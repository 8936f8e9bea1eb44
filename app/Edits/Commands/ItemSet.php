<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Item;
use Illuminate\Support\Facades\DB;

/** Name or tape colour of an item, whether it stays at a version of its asset or follows the newest, what a cloth is made of. */
final class ItemSet implements EditCommand
{
    /** Fields that other commands set. */
    private const ELSEWHERE = ['kind', 'asset', 'position', 'headingDeg', 'scale', 'moves', 'route', 'surfaces'];

    public function name(): string
    {
        return 'item.set';
    }

    public function rules(): array
    {
        return [
            'item' => 'required',
            'name' => 'sometimes|string|min:1|max:80',
            'version' => 'sometimes|nullable|integer|min:1',
        ] + RowRules::of(Item::class, [], self::ELSEWHERE);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if (
            isset($in['name']) && DB::table('items')->where('scene_id', $scene->scene->id)->where('name', $in['name'])
                ->where('id', '!=', $item->id)->exists()
        ) {
            throw new UserError('item.name-taken', "Something else in this scene is called \"{$in['name']}\".", 'Choose another name.');
        }
        $changes = RowColumns::changed(Item::class, array_diff_key($in, array_flip(self::ELSEWHERE)), $scene, $item);
        if (array_key_exists('version', $in)) {
            $version = $in['version'] === null
                ? null
                : DB::table('asset_versions')->where('asset_id', $item->asset_id)->where('number', $in['version'])->value('id');
            if ($in['version'] !== null && $version === null) {
                throw new UserError(
                    'item.version',
                    "\"{$item->name}\" has no version {$in['version']}.",
                    'Choose one that the kit lists, or let it follow the newest.',
                );
            }
            $changes['pinned_version_id'] = $version;
        }
        if (array_key_exists('cloth', $in)) {
            $extras = $scene->digest((int) $item->asset_id)['extras'] ?? [];
            if (! is_array($extras) || ! isset($extras['cloth'])) {
                throw new UserError(
                    'item.no-cloth',
                    "\"{$item->name}\" is not a cloth.",
                    'Choose a flag, a cloak or another thing whose file says that it is one.',
                );
            }
        }
        $scene->rows->update('items', (int) $item->id, $changes);

        return match (true) {
            isset($in['name']) => "Rename {$item->name}",
            array_key_exists('version', $in) => $in['version'] === null
                ? "Let {$item->name} follow its newest version"
                : "Keep {$item->name} at version {$in['version']}",
            array_key_exists('cloth', $in) => is_array($in['cloth'])
                ? "{$item->name} is of {$in['cloth']['kind']}"
                : "{$item->name} is of its own stuff",
            isset($in['tape']) => "Colour {$item->name}",
            default => "Change {$item->name}",
        };
    }
}

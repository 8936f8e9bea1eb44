<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Link;

/** Makes a thing go with another (or with one of its joints or mounts) from a frame up to a frame. */
final class LinkAdd implements EditCommand
{
    public function name(): string
    {
        return 'link.add';
    }

    public function rules(): array
    {
        return RowRules::of(Link::class, ['child', 'parent', 'from']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $child = $scene->find('items', $in['child']);
        $parent = $scene->find('items', $in['parent']);
        if ($child->id === $parent->id) {
            throw new UserError('link.self', "\"{$child->name}\" cannot carry itself.", 'Choose another carrier.');
        }
        $scene->remember($in['as'] ?? null, $scene->rows->insert('links', RowColumns::fresh(Link::class, $in, $scene)));

        return "{$parent->name} carries {$child->name}";
    }
}

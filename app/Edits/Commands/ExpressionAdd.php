<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Expression;

/** Lets something show in a performer's face from a frame on. */
final class ExpressionAdd implements EditCommand
{
    public function name(): string
    {
        return 'expression.add';
    }

    public function rules(): array
    {
        return RowRules::of(Expression::class, ['item', 'from']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if ($item->kind !== 'performer') {
            throw new UserError('expression.not-performer', "\"{$item->name}\" is not a performer.", 'Choose somebody with a face.');
        }
        $scene->remember($in['as'] ?? null, $scene->rows->insert('expressions', RowColumns::fresh(Expression::class, $in, $scene)));

        return "{$item->name} looks ".($in['emotion'] ?? 'glad');
    }
}

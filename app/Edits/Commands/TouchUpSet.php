<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\TouchUp;

/** When a touch-up works, and how it fades; "unkey" takes the key at a frame away. */
final class TouchUpSet implements EditCommand
{
    public function name(): string
    {
        return 'touchUp.set';
    }

    public function rules(): array
    {
        return ['touchUp' => 'required', 'unkey' => 'sometimes|integer'] + RowRules::of(TouchUp::class, [], ['item', 'joint', 'keys']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $row = $scene->find('touch_ups', $in['touchUp']);
        $values = RowColumns::changed(TouchUp::class, $in, $scene, $row);
        if (isset($in['unkey'])) {
            $keys = array_values(array_filter(TouchUpKey::keys($row), static fn (array $k): bool => $k['frame'] !== (int) $in['unkey']));
            if ($keys === []) {
                throw new UserError('touch-up.last-key', 'A touch-up keeps at least one key.', 'Take the whole touch-up away instead.');
            }
            $values['keys'] = json_encode($keys);
        }
        if ($values !== []) {
            $scene->rows->update('touch_ups', (int) $row->id, $values);
        }

        return 'Change a touch-up';
    }
}

<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;

/** Ties a beat to another performer's, so that both stand to each other as their motions were made; or unties it. */
final class BeatPair implements EditCommand
{
    public function name(): string
    {
        return 'beat.pair';
    }

    public function rules(): array
    {
        return ['beat' => 'required', 'with' => 'present|nullable', 'together' => 'sometimes|boolean'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $beat = $scene->find('beats', $in['beat']);
        $play = json_decode($beat->play ?? '{}', true);
        $play = is_array($play) ? $play : [];
        unset($play['with']);
        $values = [];
        if ($in['with'] !== null) {
            $with = $scene->find('beats', $in['with']);
            if ((int) $with->item_id === (int) $beat->item_id) {
                throw new UserError('pair.same', 'A performer cannot be paired with itself.', 'Choose a beat of another performer.');
            }
            $other = json_decode($with->play ?? '{}', true);
            if (is_array($other) && ($other['with'] ?? null) === "b{$beat->id}") {
                throw new UserError('pair.both', 'The other beat already stands by this one.', 'Untie that one first.');
            }
            $play['with'] = "b{$with->id}";
            if (($in['together'] ?? true) === true) {
                $values['start'] = (int) $with->start;
            }
        }
        $scene->rows->update('beats', (int) $beat->id, $values + ['play' => $play === [] ? null : json_encode($play, JSON_THROW_ON_ERROR)]);

        return $in['with'] === null ? 'Untie a pair' : 'Pair two beats';
    }
}

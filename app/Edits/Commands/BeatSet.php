<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Beat;
use Illuminate\Support\Facades\DB;
use stdClass;

/** Moves, trims, speeds up, loops or changes a beat; with "motion" another motion takes its place. */
final class BeatSet implements EditCommand
{
    public function name(): string
    {
        return 'beat.set';
    }

    public function rules(): array
    {
        return ['beat' => 'required', 'motion' => 'sometimes'] + BeatAdd::fields(['item']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $beat = $scene->find('beats', $in['beat']);
        $values = RowColumns::changed(Beat::class, BeatAdd::ordered($in), $scene, $beat) + self::retimed($in, $beat);
        if (isset($in['motion'])) {
            $motion = $scene->asset($in['motion']);
            BeatAdd::needMotion($motion);
            $values += ['asset_id' => $motion->id, 'source_in' => 0.0, 'source_out' => null, 'settings' => '{}'];
        }
        $from = $values['source_in'] ?? $beat->source_in;
        $to = array_key_exists('source_out', $values) ? $values['source_out'] : $beat->source_out;
        if ($to !== null && (float) $to <= (float) $from) {
            throw new UserError('beat.trim', 'A beat ends after it begins.', 'Give an out time later than the in time.');
        }
        if (isset($in['start'])) {
            // Put somewhere by hand, it goes with its line no more.
            foreach (DB::table('lines')->where('beat_id', $beat->id)->pluck('id')->all() as $line) {
                $scene->rows->update('lines', (int) $line, ['beat_id' => null]);
            }
        }
        if ($values !== []) {
            $scene->rows->update('beats', (int) $beat->id, $values);
        }

        return isset($in['start']) ? 'Move a beat' : (isset($in['sourceIn']) || isset($in['sourceOut']) ? 'Trim a beat' : 'Change a beat');
    }

    /**
     * At another speed a cut beat shows the same of its motion: what is cut by frames goes with it.
     *
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    private static function retimed(array $in, stdClass $beat): array
    {
        $play = $beat->play === null ? null : json_decode($beat->play, true);
        $speed = is_numeric($in['speed'] ?? null) ? (float) $in['speed'] : (float) $beat->speed;
        if (! is_array($play) || $speed === (float) $beat->speed || array_key_exists('play', $in)) {
            return [];
        }
        foreach (['skip' => 0, 'length' => 1] as $name => $least) {
            if (is_numeric($play[$name] ?? null)) {
                $play[$name] = max($least, (int) round($play[$name] * (float) $beat->speed / $speed));
            }
        }

        return ['play' => json_encode($play)];
    }
}

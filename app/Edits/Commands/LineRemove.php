<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Line;
use Illuminate\Support\Facades\DB;

/** Takes a line out, with the gestures that go with it; who waited for it waits for what came before. */
final class LineRemove implements EditCommand
{
    public function name(): string
    {
        return 'line.remove';
    }

    public function rules(): array
    {
        return ['line' => 'required'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $row = $scene->find('lines', $in['line']);
        foreach (DB::table('lines')->where('after_id', $row->id)->pluck('id')->all() as $next) {
            $scene->rows->update(
                'lines', (int) $next, ['after_id' => $row->after_id] + ($row->after_id === null ? ['start' => $row->start] : []),
            );
        }
        $scene->remove(Line::class, (int) $row->id);
        if ($row->beat_id !== null) {
            $scene->remove(Beat::class, (int) $row->beat_id);
        }

        return 'Take a line out';
    }
}

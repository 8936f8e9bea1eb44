<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Take;
use Illuminate\Support\Facades\DB;
use stdClass;

/** Lets a line be heard as a recording; those it had before stay in its list. */
final class TakeAdd implements EditCommand
{
    /** Seconds of a recording at most: it is listened to from its first to its last sound. */
    public const MOST = 300.0;

    public function name(): string
    {
        return 'take.add';
    }

    public function rules(): array
    {
        return ['line' => 'required', 'asset' => 'required'] + RowRules::of(Take::class, [], ['line', 'asset', 'chosen']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        self::of($scene, $scene->find('lines', $in['line']), $in);

        return 'A recording for a line';
    }

    /** @param  array<string, mixed>  $in  its asset, and from and to where in it */
    public static function of(EditContext $scene, stdClass $line, array $in): void
    {
        $asset = $scene->asset($in['asset']);
        $seconds = $scene->digest((int) $asset->id)['seconds'] ?? 0.0;
        if ($asset->kind !== 'sound') {
            throw new UserError('take.kind', "\"{$asset->name}\" is no sound.", 'Record the line, or drop a file of somebody who says it.');
        }
        if ($seconds > self::MOST) {
            throw new UserError(
                'take.long', sprintf('"%s" is %d s long; a recording of a line has at most %d.', $asset->name, $seconds, self::MOST),
                'Cut the file into its lines, or put it on a lane of sounds.',
            );
        }
        self::refuseBackwards($in['sourceIn'] ?? null, $in['sourceOut'] ?? null);
        self::unchoose($scene, (int) $line->id);
        $id = $scene->rows->insert(
            'takes', ['asset_id' => $asset->id] + RowColumns::fresh(Take::class, ['line' => (int) $line->id] + $in, $scene),
        );
        $scene->remember($in['as'] ?? null, $id);
    }

    /** Of a line's takes one is heard at most. */
    public static function unchoose(EditContext $scene, int $line): void
    {
        foreach (DB::table('takes')->where('line_id', $line)->where('chosen', true)->pluck('id')->all() as $other) {
            $scene->rows->update('takes', (int) $other, ['chosen' => false]);
        }
    }

    public static function refuseBackwards(mixed $from, mixed $to): void
    {
        if (is_numeric($from) && is_numeric($to) && (float) $to <= (float) $from) {
            throw new UserError(
                'take.backwards', 'This part of the recording would end before it begins.', 'Let it end later; nothing was changed.',
            );
        }
    }
}

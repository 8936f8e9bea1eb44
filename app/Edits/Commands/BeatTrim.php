<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Staging\Trim;

/** Brings an edge of a beat to a frame; what the other frames show stays what it was. */
final class BeatTrim implements EditCommand
{
    public function name(): string
    {
        return 'beat.trim';
    }

    public function rules(): array
    {
        return ['beat' => 'required', 'edge' => 'required|in:in,out', 'frame' => 'required|integer|between:0,1000000'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $beat = $scene->find('beats', $in['beat']);
        $edge = $in['edge'] === 'in' ? 'in' : 'out';
        if ($edge === 'in') {
            BeatSplit::keepOrigin($scene, $beat);
        }
        $scene->carryOut(Trim::of($scene->compiled(), "b{$beat->id}", $edge, (int) $in['frame']));

        return 'Trim a beat';
    }
}

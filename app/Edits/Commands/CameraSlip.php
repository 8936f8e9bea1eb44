<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\CameraLock;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Staging\Slip;

/** What a camera does comes earlier or later, while the cuts to it stay. */
final class CameraSlip implements EditCommand
{
    public function name(): string
    {
        return 'camera.slip';
    }

    public function rules(): array
    {
        return ['camera' => 'required', 'by' => 'required|integer|between:-1000000,1000000'];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $row = $scene->find('cameras', $in['camera']);
        CameraLock::check($row);
        $document = $scene->document();
        $camera = $document->cameras["c{$row->id}"];
        $framings = array_values(array_filter($document->framings, static fn (Framing $f): bool => $f->camera === $camera->id));
        $by = Slip::by($camera->keys, $framings, (int) $in['by'], $camera->letter);
        foreach ($framings as $f) {
            $scene->rows->update('framings', (int) substr($f->id, 1), ['frame' => $f->frame + $by]);
        }
        if ($framings === []) {
            $scene->rows->update('cameras', (int) $row->id, ['keys' => json_encode(Slip::keys($camera->keys, $by), JSON_THROW_ON_ERROR)]);
        }

        return "Slip camera {$camera->letter}";
    }
}

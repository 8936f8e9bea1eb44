<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Scenes\SceneStream;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Lens;

final class PoseCommand extends ReelCommand
{
    protected $signature = 'reel:pose {scene} {--frame=0} {--json}';

    protected $description = "Every item's and joint's world transform and every camera at a frame";

    protected function work(): int
    {
        $scene = app(SceneStream::class)->compile($this->scene($this->argument('scene')));
        $frame = $this->whole('frame') ?? 0;
        $pose = SceneEvaluator::at($scene, $frame);
        $items = [];
        foreach ($pose->places as $id => $place) {
            $item = $scene->document->items[$id];
            $entry = [
                'id' => $id, 'name' => $item->name, 'position' => $place->position, 'rotation' => $place->rotation,
                'scale' => $place->scale,
            ];
            if (isset($scene->lanes[$id])) {
                $skeleton = $scene->lanes[$id]->figure->skeleton;
                foreach ($skeleton->names as $j => $name) {
                    $at = SceneEvaluator::jointPlace($scene, $id, $j, $frame);
                    $entry['joints'][$name] = ['position' => $at->position, 'rotation' => $at->rotation];
                }
            }
            $items[] = $entry;
        }
        $d = $scene->document;
        $cameras = [];
        foreach ($pose->cameras as $id => $c) {
            $cameras[] = [
                'id' => $id, 'letter' => $d->cameras[$id]->letter, 'position' => $c->position, 'rotation' => $c->rotation,
                'focalMm' => $c->focalMm, 'focusMetres' => $c->focusMetres, 'fStop' => $c->fStop,
                'verticalAngleDeg' => rad2deg(Lens::verticalAngle($c->sensorWidthMm, $c->focalMm, $d->width / $d->height)),
            ];
        }
        $text = array_map(static fn (array $i): string => sprintf('%-28s %8.3f %8.3f %8.3f', $i['name'], ...$i['position']), $items);
        foreach ($cameras as $c) {
            $text[] = sprintf('%-28s %8.3f %8.3f %8.3f  %.1f mm', "camera {$c['letter']}", ...[...$c['position'], $c['focalMm']]);
        }

        return $this->answer(
            ['frame' => $frame, 'timecode' => $d->rate->timecode($frame), 'items' => $items, 'cameras' => $cameras],
            $text,
        );
    }
}

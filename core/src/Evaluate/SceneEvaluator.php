<?php

declare(strict_types=1);

namespace CrispReel\Core\Evaluate;

use CrispReel\Core\Camera\CameraMove;
use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Camera\HandHeld;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Moment;
use CrispReel\Core\Document\Camera;
use CrispReel\Core\Math\Placement;

/** CompiledScene and a frame to a ScenePose: random access, no history. */
final class SceneEvaluator
{
    public static function at(CompiledScene $scene, float $frame): ScenePose
    {
        $moment = $scene->poses->at($frame);
        $places = [];
        $rows = [];
        foreach ($scene->order as $id) {
            $places[$id] = $moment->place($id);
            if (isset($scene->lanes[$id])) {
                $rows[$id] = $moment->row($id);
            }
        }

        return new ScenePose($frame, $places, $rows, self::cameras($scene, $moment, $frame), $moment->missing);
    }

    /** @return array<string, CameraPose> */
    public static function cameras(CompiledScene $scene, Moment $moment, float $frame): array
    {
        $heads = $scene->document->cameras === [] ? [] : $moment->heads();

        return array_map(
            static fn (Camera $c): CameraPose => self::camera($scene, $c, $frame, $heads),
            $scene->document->cameras,
        );
    }

    /**
     * A camera at a frame: where it stands for whom it films, or by its keys; as hands hold it.
     *
     * @param  list<array{float, float, float}>  $heads  faces in the scene, for a focus that follows
     */
    public static function camera(CompiledScene $scene, Camera $c, float $frame, array $heads): CameraPose
    {
        $pose = isset($scene->framed[$c->id]) ? $scene->framed[$c->id]->at($frame) : CameraMove::at($c, $frame, $heads);

        return $c->shake === null ? $pose : HandHeld::shaken($pose, $c->shake, $frame / $scene->document->rate->perSecond());
    }

    /** @return list<float> */
    public static function row(CompiledScene $scene, string $item, float $frame): array
    {
        return $scene->poses->at($frame)->row($item);
    }

    public static function place(CompiledScene $scene, string $item, float $frame): Placement
    {
        return $scene->poses->at($frame)->place($item);
    }

    /** A joint of an item in the world, or the item itself. */
    public static function jointPlace(CompiledScene $scene, string $item, ?int $joint, float $frame): Placement
    {
        return $scene->poses->at($frame)->joint($item, $joint);
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Evaluate;

use CrispReel\Core\Camera\CameraMove;
use CrispReel\Core\Compile\Carry;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\Model\BodySolver;

/** CompiledScene and a frame to a ScenePose: random access, no history. */
final class SceneEvaluator
{
    public static function at(CompiledScene $scene, float $frame): ScenePose
    {
        $places = [];
        $rows = [];
        foreach ($scene->order as $id) {
            $places[$id] = self::place($scene, $id, $frame);
            if (isset($scene->lanes[$id])) {
                $rows[$id] = self::row($scene, $id, $frame);
            }
        }

        return new ScenePose($frame, $places, $rows, self::cameras($scene, $frame));
    }

    /** @return array<string, \CrispReel\Core\Camera\CameraPose> */
    private static function cameras(CompiledScene $scene, float $frame): array
    {
        if ($scene->document->cameras === []) {
            return [];
        }
        $heads = self::heads($scene, $frame);
        $out = [];
        foreach ($scene->document->cameras as $id => $camera) {
            $out[$id] = CameraMove::at($camera, $frame, $heads);
        }

        return $out;
    }

    /** @return list<array{float, float, float}> */
    public static function heads(CompiledScene $scene, float $frame): array
    {
        $heads = [];
        foreach ($scene->lanes as $id => $lane) {
            $head = $lane->figure->skeleton->roles['head'] ?? null;
            if ($head !== null) {
                $heads[] = self::jointPlace($scene, (string) $id, $head, $frame)->point([0.0, 0.15, 0.08]);
            }
        }

        return $heads;
    }

    /**
     * A performer's row with hands closed on what they carry.
     *
     * @return list<float>
     */
    public static function row(CompiledScene $scene, string $item, float $frame): array
    {
        $lane = $scene->lanes[$item];
        $row = $lane->row($frame);
        foreach ($scene->grasps[$item] ?? [] as $g) {
            $w = $g->weight($frame);
            if ($w > 0.0) {
                $row = self::closed($row, $lane, $g->side, $g->curl, $w);
            }
        }

        return $row;
    }

    /**
     * @param  list<float>  $row
     * @return list<float>
     */
    private static function closed(array $row, Lane $lane, string $side, float $curl, float $weight): array
    {
        if (! $lane->figure->isHuman()) {
            return $row;
        }
        $g = $lane->figure->body()->side[$side];
        foreach (BodySolver::curl($g['lower'], $g['m'], $curl, 0.0, 1.2) as $name => $q) {
            $j = $lane->figure->skeleton->index[$name.$side] ?? null;
            if ($j !== null) {
                $o = 3 + 4 * $j;
                $new = Q4::slerp([$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]], $q, $weight);
                [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]] = $new;
            }
        }

        return array_values($row);
    }

    /** Where an item is: carried, let go, or on its own mark. */
    public static function place(CompiledScene $scene, string $item, float $frame): Placement
    {
        $carries = $scene->carries[$item] ?? [];
        if ($carries === []) {
            return $scene->places[$item];
        }
        $active = $carries[0];
        foreach ($carries as $c) {
            if ($c->from <= $frame) {
                $active = $c;
            }
        }
        $place = self::carried($scene, $active, $frame);
        if ($active->before !== null && $active->easeFrames > 0 && $frame < $active->from + $active->easeFrames) {
            return $active->before->mix($place, Ease::smooth(($frame - $active->from) / $active->easeFrames));
        }

        return $place;
    }

    private static function carried(CompiledScene $scene, Carry $c, float $frame): Placement
    {
        if ($c->parent === null) {
            return $c->offset;
        }
        $parent = self::jointPlace($scene, $c->parent, $c->joint, $frame);
        if (! $c->upright) {
            return $parent->of($c->offset);
        }
        $grip = self::gripPoint($scene, $c, $parent);
        $turn = Q4::aroundY(Q4::heading($parent->rotation));

        return new Placement(V3::add($grip, Q4::rotate($turn, $c->offset->position)), $turn, $c->offset->scale);
    }

    /** @return array{float, float, float} */
    private static function gripPoint(CompiledScene $scene, Carry $c, Placement $parent): array
    {
        $figure = isset($scene->lanes[$c->parent]) ? $scene->lanes[$c->parent]->figure : null;
        foreach (['L', 'R'] as $side) {
            if ($figure !== null && ($figure->skeleton->roles['hand'.$side] ?? -1) === $c->joint) {
                return $parent->point($figure->grip($side)[0] ?? [0.0, 0.0, 0.0]);
            }
        }

        return $parent->position;
    }

    /** A joint of an item in the world, or the item itself. */
    public static function jointPlace(CompiledScene $scene, string $item, ?int $joint, float $frame): Placement
    {
        $place = self::place($scene, $item, $frame);
        if ($joint === null || ! isset($scene->lanes[$item])) {
            return $place;
        }
        $lane = $scene->lanes[$item];
        $row = $lane->row($frame);
        $skeleton = $lane->figure->skeleton;
        // Only the chain up to the root is needed.
        $chain = [];
        for ($j = $joint; $j >= 0; $j = $skeleton->parents[$j]) {
            $chain[] = $j;
        }
        $at = $place;
        foreach (array_reverse($chain) as $j) {
            $o = 3 + 4 * $j;
            $t = $j === $lane->figure->hips ? [$row[0], $row[1], $row[2]] : $skeleton->restTranslation($j);
            $at = $at->of(new Placement($t, [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]]));
        }

        return $at;
    }
}

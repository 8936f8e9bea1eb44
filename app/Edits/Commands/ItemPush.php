<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use CrispReel\Core\Compile\Vehicle;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;

/**
 * A performer walks behind a thing with grips and pushes it where the points lead: a walk to its back, the push, the
 * thing's route, and both hands on the grips.
 */
final class ItemPush implements EditCommand
{
    /** Hips behind the grips, metres for a person of 1.7 m. */
    private const ARMS = 0.29;

    public function name(): string
    {
        return 'item.push';
    }

    public function rules(): array
    {
        return [
            'item' => 'required', 'by' => 'required', 'points' => 'required|array|min:1|max:200', 'points.*' => 'array|size:2',
            'points.*.*' => 'numeric|between:-100000,100000',
            'start' => 'sometimes|integer|between:0,1000000', 'speed' => 'sometimes|numeric|between:0.3,2',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        $who = $scene->find('items', $in['by']);
        $digest = $scene->digest((int) $item->asset_id);
        $mounts = is_array($digest['mounts'] ?? null) ? $digest['mounts'] : [];
        if ($who->kind !== 'performer') {
            throw new UserError('push.not-performer', "\"{$who->name}\" is not a performer.", 'Choose a performer.');
        }
        if (! isset($mounts['gripL'], $mounts['gripR'])) {
            throw new UserError(
                'push.no-grips',
                "\"{$item->name}\" has no grips to push it by.",
                'Choose a thing with mounts gripL and gripR.',
            );
        }
        $vehicle = Vehicle::of($digest);
        $place = Placement::standing(
            [(float) $item->x, (float) $item->y, (float) $item->z],
            (float) $item->heading_deg,
            (float) $item->scale,
        );
        $grip = [
            ($mounts['gripL']['position'][0] + $mounts['gripR']['position'][0]) / 2, 0.0,
            ($mounts['gripL']['position'][2] + $mounts['gripR']['position'][2]) / 2,
        ];
        $back = [-sin($vehicle->forward), 0.0, -cos($vehicle->forward)];
        $height = (float) ($scene->digest((int) $who->asset_id)['bounds'][1][1] ?? 1.7) * (float) $who->scale;
        $arms = self::ARMS * $height / 1.7 / $place->scale;
        $behind = $place->point([$grip[0] + $back[0] * $arms, 0.0, $grip[2] + $back[2] * $arms]);
        $axle = $place->point([$vehicle->rear[0], 0.0, $vehicle->rear[1]]);
        $gap = hypot($axle[0] - $behind[0], $axle[2] - $behind[2]);
        $points = array_map(
            static fn (mixed $p): array => is_array($p) ? array_map(floatval(...), array_values($p)) : [],
            array_values((array) $in['points']),
        );
        $walk = $this->shortened([[$axle[0], $axle[2]], ...$points], $gap);
        $facing = rad2deg(atan2($axle[0] - $behind[0], $axle[2] - $behind[2]));
        $when = isset($in['start']) ? ['start' => $in['start']] : [];
        if (! $this->standsThere($scene, (int) $who->id, $behind, $facing)) {
            (new BeatAdd)->apply(
                $scene,
                ['item' => $who->id, 'motion' => 'walk', 'path' => ['points' => [[$behind[0], $behind[2]]], 'faceDeg' => $facing]] + $when,
            );
            $when = [];
        }
        (new BeatAdd)->apply(
            $scene,
            [
                'item' => $who->id, 'motion' => 'walk', 'path' => ['points' => $walk],
                'settings' => ['speed' => $in['speed'] ?? 0.85, 'lean' => 15], 'as' => '$push',
            ] + $when,
        );
        $scene->rows->update('items', (int) $item->id, ['route' => json_encode(['points' => $points, 'by' => "i{$who->id}"])]);
        $beat = $scene->find('beats', '$push');
        // The last half second is the stand after the last step: hands may leave by then.
        $end = $scene->compiled()->lanes["i{$who->id}"]->end() - 0.5 * $scene->compiled()->document->rate->perSecond();
        foreach (['L', 'R'] as $side) {
            (new ContactAdd)->apply($scene, [
                'item' => $who->id, 'effector' => "hand{$side}", 'target' => $item->id, 'mount' => "grip{$side}",
                'from' => (int) $beat->start, 'to' => (int) ceil($end), 'easeIn' => 14, 'easeOut' => 14, 'turn' => 'match',
            ]);
        }

        return "{$who->name} pushes {$item->name}";
    }

    /** @param  array{float, float, float}  $behind */
    private function standsThere(EditContext $scene, int $who, array $behind, float $facingDeg): bool
    {
        $compiled = $scene->compiled();
        $lane = $compiled->lanes["i{$who}"];
        $at = SceneEvaluator::jointPlace($compiled, "i{$who}", $lane->figure->hips, $lane->end());
        $ahead = Q4::heading(Q4::mul($at->rotation, Q4::conjugate($lane->figure->restTurn($lane->figure->hips))));
        $off = $ahead - deg2rad($facingDeg);

        return hypot($at->position[0] - $behind[0], $at->position[2] - $behind[2]) < 0.25 && abs(Angle::wrapped($off)) < 0.4;
    }

    /**
     * The line without its last part: where the one behind stops.
     *
     * @param  list<list<float>>  $points
     * @return list<list<float>>
     */
    private function shortened(array $points, float $by): array
    {
        while (count($points) > 1 && $by > 0.0) {
            [$a, $b] = [$points[count($points) - 2], $points[count($points) - 1]];
            $l = hypot($b[0] - $a[0], $b[1] - $a[1]);
            if ($l > $by) {
                $points[count($points) - 1] = [$b[0] + ($a[0] - $b[0]) * $by / $l, $b[1] + ($a[1] - $b[1]) * $by / $l];
                break;
            }
            $by -= $l;
            array_pop($points);
        }

        return array_values($points);
    }
}

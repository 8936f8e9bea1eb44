<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use CrispReel\Core\Crowd\CrowdPlan;
use CrispReel\Core\Crowd\Member;
use CrispReel\Core\Document\Rate;
use CrispReel\Core\Staging\Ground;

/** Places many performers in an area or along a route, each with a motion that goes on, none in step with a neighbour. */
final class CrowdAdd implements EditCommand
{
    public function name(): string
    {
        return 'crowd.add';
    }

    public function rules(): array
    {
        $points = ['array', 'min:2', 'max:100'];

        return [
            'assets' => 'required|array|min:1|max:100', 'motions' => 'required|array|min:1|max:100',
            'count' => 'required|integer|between:1,200', 'area' => ['required_without:route', ...$points], 'area.*' => 'array|size:2',
            'area.*.*' => 'numeric|between:-100000,100000',
            'route' => ['sometimes', ...$points], 'route.*' => 'array|size:2', 'route.*.*' => 'numeric|between:-100000,100000',
            'spacing' => 'sometimes|numeric|between:0.3,50', 'width' => 'sometimes|numeric|between:0,20',
            'seed' => 'sometimes|integer|between:0,1000000', 'name' => 'sometimes|string|max:60', 'facing' => 'sometimes|array|size:2',
            'facing.*' => 'numeric',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $figures = array_map($scene->asset(...), array_values((array) $in['assets']));
        $motions = array_map($scene->asset(...), array_values((array) $in['motions']));
        foreach ($figures as $f) {
            if ($f->kind !== 'performer') {
                throw new UserError('crowd.not-performer', "\"{$f->name}\" is not a performer.", 'Choose performers for a crowd.');
            }
        }
        foreach ($motions as $m) {
            if ($m->kind !== 'motion') {
                throw new UserError('crowd.not-motion', "\"{$m->name}\" is not a motion.", 'Choose motions for a crowd.');
            }
        }
        $seed = (int) ($in['seed'] ?? 1);
        $plan = new CrowdPlan(count($figures), count($motions), $seed);
        $spacing = (float) ($in['spacing'] ?? 0.8);
        $members = isset($in['route'])
            ? $plan->along(self::points($in['route']), (int) $in['count'], $spacing, (float) ($in['width'] ?? 0.5))
            : $plan->inArea(self::points($in['area']), (int) $in['count'], $spacing);
        if ($members === []) {
            throw new UserError('crowd.no-room', 'Nobody fits into this area.', 'Draw a larger area, or give less spacing.');
        }
        // Whoever of the crowd stands there already is no ground for the next.
        $ground = $scene->stage();
        foreach ($members as $k => $m) {
            $this->place($scene, $ground, $m, $figures[$m->figure], $motions[$m->motion], $in, $k, $seed);
        }

        return sprintf('A crowd of %d', count($members));
    }

    /** @param  array<string, mixed>  $in */
    private function place(
        EditContext $scene, Ground $ground, Member $m, \App\Models\Asset $figure, \App\Models\Asset $motion, array $in, int $k, int $seed,
    ): void {
        $heading = $m->headingDeg;
        if (is_array($in['facing'] ?? null) && ! isset($in['route'])) {
            // Towards the place that all look at, not all quite alike.
            $heading = rad2deg(atan2((float) $in['facing'][0] - $m->x, (float) $in['facing'][1] - $m->z)) + ($m->phase - 0.5) * 50;
        }
        $id = $scene->rows->insert('items', [
            'scene_id' => $scene->scene->id, 'kind' => 'performer', 'asset_id' => $figure->id,
            'name' => $scene->freeName(is_string($in['name'] ?? null) ? $in['name'] : 'Passer-by'),
            'tape' => $k % 8, 'x' => round($m->x, 4), 'y' => $ground->stand($m->x, $m->z), 'z' => round($m->z, 4),
            'heading_deg' => round($heading, 2), 'scale' => 0.94 + 0.12 * fmod($m->phase * 7.31, 1.0),
        ]);
        $facts = $motion->versions()->orderByDesc('number')->firstOrFail()->facts;
        $onward = isset($in['route']) && is_numeric($facts['travel'] ?? null) && (float) $facts['travel'] > 0.5
            ? CrowdPlan::onward([$m->x, $m->z], self::points($in['route']))
            : [];
        $rate = new Rate((int) $scene->scene->production->rate_num, (int) $scene->scene->production->rate_den);
        $seconds = is_numeric($facts['seconds'] ?? null) ? (float) $facts['seconds'] : 4.0;
        $scene->rows->insert('beats', [
            'scene_id' => $scene->scene->id, 'item_id' => $id, 'asset_id' => $motion->id,
            'start' => $onward === [] ? 0 : (int) round($rate->frame($m->phase * 1.5)), 'speed' => round($m->rate, 4),
            // A few seeds are shared: each is solved once a figure.
            'path' => $onward === [] ? null : json_encode(
                ['points' => array_map(static fn (array $p): array => [round($p[0], 3), round($p[1], 3)], $onward)],
                JSON_THROW_ON_ERROR,
            ),
            'settings' => json_encode((object) ($motion->slug === 'walk' ? [] : ['seed' => ($seed + $k) % 3 + 1])),
            // One who walks the line begins on either foot, not in the middle of a step.
            'play' => json_encode($onward === [] ? [
                'keepLooping' => true, 'skip' => (int) round($rate->frame($m->phase * $seconds)),
            ] + ($m->mirror ? ['mirror' => true] : []) : (object) ($m->mirror ? ['mirror' => true] : [])),
        ]);
    }

    /** @return list<array{float, float}> */
    private static function points(mixed $v): array
    {
        $out = [];
        foreach (is_array($v) ? $v : [] as $p) {
            if (is_array($p)) {
                [$x, $z] = array_values($p);
                $out[] = [(float) $x, (float) $z];
            }
        }

        return $out;
    }
}

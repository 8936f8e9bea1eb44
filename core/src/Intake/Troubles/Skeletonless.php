<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Bound;
use CrispReel\Core\Intake\Fitting\Binding;
use CrispReel\Core\Intake\Fitting\Markers;
use CrispReel\Core\Intake\Fitting\SkeletonPlan;
use CrispReel\Core\Intake\Fitting\VoxelBody;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** A person without a skeleton: one is fitted by eight markers, which are proposed and can be set. */
final class Skeletonless implements Trouble
{
    /** Metres that a person is tall, and how wide and deep in heights. */
    private const TALL = [0.3, 3.2];

    private const WIDE = [0.22, 1.35];

    private const DEEP = 0.75;

    public function code(): string
    {
        return 'skeleton';
    }

    public function look(Subject $subject): ?Finding
    {
        if ($subject->isFigure() || $subject->solids() === []) {
            return null;
        }
        [$w, $h, $d] = $subject->size();
        if ($h < self::TALL[0] || $h > self::TALL[1] || $w < self::WIDE[0] * $h || $w > self::WIDE[1] * $h || $d > self::DEEP * $h) {
            return null;
        }
        $markers = Markers::proposed(VoxelBody::of($subject->solids()));

        return $markers->sure ? Finding::ofFile(
            'skeleton',
            Severity::Look,
            'It has the shape of a person but no skeleton.',
            'It stands like a statue: no motion moves it.',
            ['markers' => self::rounded($markers)],
            'Fit a skeleton',
        ) : null;
    }

    /** @return array<string, list<float>> */
    private static function rounded(Markers $markers): array
    {
        return array_map(static fn (array $p): array => array_map(static fn (float $v): float => round($v, 4), $p), $markers->places);
    }

    public function mend(Subject $subject, array $with): void
    {
        if ($subject->isFigure() || $subject->solids() === []) {
            return;
        }
        $body = VoxelBody::of($subject->solids());
        $set = is_array($with['markers'] ?? null) ? $with['markers'] : [];
        $markers = Markers::proposed($body)->with(array_filter($set, is_string(...), ARRAY_FILTER_USE_KEY), $body);
        $plan = SkeletonPlan::of($body, $markers, ($with['fingers'] ?? false) === true);
        $binding = new Binding($body, $plan);
        $bound = [];
        foreach ($subject->solids() as $s) {
            [$joints, $weights] = $binding->weights($s['positions'], $s['index']);
            $bound[] = [$s, $joints, $weights];
        }
        $this->joints($subject, $plan);
        Bound::apply($subject, $bound);
    }

    /** Nodes and the skin of the plan. */
    private function joints(Subject $subject, SkeletonPlan $plan): void
    {
        $draft = $subject->draft;
        $nodes = $draft->list('nodes');
        $number = [];
        foreach (array_keys($plan->places) as $name) {
            $number[$name] = count($nodes) + count($number);
        }
        $inverse = [];
        foreach ($plan->places as $name => $at) {
            $parent = $plan->parents[$name];
            $children = array_values(array_map(static fn (string $c): int => $number[$c], array_keys($plan->parents, $name, true)));
            $nodes[] = ['name' => $name, 'translation' => $parent === '' ? $at : V3::sub($at, $plan->places[$parent])]
                + ($children === [] ? [] : ['children' => $children]);
            array_push($inverse, ...M4::compose(V3::mul($at, -1.0), Q4::IDENTITY, [1.0, 1.0, 1.0]));
        }
        $draft->json['nodes'] = $nodes;
        $draft->json['skins'] = [['joints' => array_values($number), 'inverseBindMatrices' => $draft->add($inverse, 16)]];
        $scene = $draft->list('scenes')[0] ?? [];
        $draft->json['scenes'] = [['nodes' => [
            ...array_values(array_filter(is_array($scene['nodes'] ?? null) ? $scene['nodes'] : [], is_int(...))), $number['hips'],
        ]]];
        $draft->json['scene'] = 0;
        $subject->touched();
    }
}

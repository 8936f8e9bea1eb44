<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use Closure;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Scores\Borne;
use CrispReel\Core\Motion\Scores\Moving;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\BodySolver;
use CrispReel\Core\Rig\Channels;
use CrispReel\Core\Rig\FacePlayer;

/** Solves a recipe on a figure and samples it into a clip table. */
final class MotionSampler
{
    public const RATE = 30.0;

    /** Rows a second where feet strike the ground: between two rows a foot moves in a straight line. */
    public const GAIT_RATE = 60.0;

    /** Bump when any model changes: tables solved before are then made anew. */
    public const VERSION = 12;

    /** @param  list<string>  $morphs the figure's face shapes, in its order */
    public static function table(BodyFrame $body, MotionRecipe $recipe, array $morphs): ClipTable
    {
        [$model, $seconds, $loops] = self::model($body, $recipe);

        return self::sampled(
            $body,
            $model,
            $seconds,
            $loops,
            $morphs,
            in_array($recipe->model, ['walk', 'walkToMark'], true) ? self::GAIT_RATE : self::RATE,
        );
    }

    /**
     * @param  Closure(float): Channels  $model
     * @param  list<string>  $morphs
     */
    public static function sampled(
        BodyFrame $body,
        Closure $model,
        float $seconds,
        bool $loops,
        array $morphs,
        float $rate = self::GAIT_RATE,
    ): ClipTable {
        $solver = new BodySolver($body);
        $face = new FacePlayer($morphs);
        // A whole number of rows: a loop's last row equals its first.
        $count = max(2, (int) round($seconds * $rate) + 1);
        $rows = [];
        for ($i = 0; $i < $count; $i++) {
            $c = $model($seconds * $i / ($count - 1));
            array_push($rows, ...self::row($body, $c, $solver, $face));
        }

        return ClipTable::fromRows(($count - 1) / $seconds, $body->skeleton->count(), $morphs, $count, $rows, $loops);
    }

    /** @return array{Closure(float): Channels, float, bool} channels over time, seconds, whether it repeats */
    public static function model(BodyFrame $body, MotionRecipe $r): array
    {
        $seed = (int) $r->number('seed', 1);
        $seconds = Ease::clamp($r->number('seconds', 6.0), 2.0, 60.0);
        switch ($r->model) {
            case 'walk':
                $gait = Gait::cycle($body, GaitStyle::fromArray($r->settings), $seed);

                return [Manner::over($body, $gait->at(...), $r->settings), $gait->seconds, true];
            case 'walkToMark':
                $gait = Gait::toMark(
                    $body,
                    GaitStyle::fromArray($r->settings),
                    Ease::clamp($r->number('metres', 3.0), 0.5, 40.0) / $body->scale,
                    $seed,
                );

                return [Manner::over($body, $gait->at(...), $r->settings), $gait->seconds, false];
            case 'talk':
                return [
                    Gesture::talk($body, $seed, $seconds, Ease::clamp($r->number('energy', 1.0), 0.3, 1.3), $r->text('line')), $seconds,
                    false,
                ];
            case 'wave':
                return [Gesture::wave($body, $seed, 3.4), 3.4, false];
            case 'handOver':
            case 'receive':
                return [
                    Gesture::handOver($body, $seed, 4.2, $r->model === 'handOver', Ease::clamp($r->number('gap', 1.02), 0.7, 1.4)), 4.2,
                    false,
                ];
            case 'mount':
                return Mounting::model($body, $r);
            case 'act':
                return self::act($body, $r, $seed);
            default:
                return [Gesture::idle($body, $seed, max(8.0, $seconds)), max(8.0, $seconds), true];
        }
    }

    /** @return array{Closure(float): Channels, float, bool} */
    private static function act(BodyFrame $body, MotionRecipe $r, int $seed): array
    {
        $score = $r->text('score');
        $enters = $r->number('enters', 0.0);
        [$sheet, $lead] = $enters > 0.0 && Moving::has($score) ? [Moving::sheet($score, $enters), Moving::LEAD]
            : [ScoreBook::sheet($score), 0.0];
        $sheet = $score === 'beCarried' ? Borne::sheet(Ease::clamp($r->number('bearer', 1.0), 0.5, 2.0)) : $sheet;
        $seat = $r->number('seat', 0.0);
        $sheet = $seat > 0.0 ? Seating::on($sheet, $body, $seat) : $sheet;
        $sheet = Reaction::of($sheet, Ease::clamp($r->number('strength', 1.0), 0.2, 2.0));
        $pace = Ease::clamp($r->number('pace', 1.0), 0.5, 2.0);
        $lead /= $pace;
        $score = new Score($body, $sheet, $seed, Ease::clamp($r->number('size', 1.0), 0.3, 1.4), $pace);

        return [
            $lead > 0.0 ? static fn (float $t): Channels => $score->at($t + $lead) : $score->at(...), $score->seconds() - $lead,
            $sheet['loops'] ?? false,
        ];
    }

    /** @return list<float> */
    private static function row(BodyFrame $body, Channels $c, BodySolver $solver, FacePlayer $face): array
    {
        $local = $solver->solve($c);
        $s = $body->scale;
        $row = [$c->hip[0] * $s, $c->hip[1] * $s, $c->hip[2] * $s];
        $byJoint = [];
        foreach ($local as $name => $q) {
            $joint = $body->skeleton->joint($name);
            if ($joint !== null) {
                $byJoint[$joint] = $q;
            }
        }
        for ($j = 0, $n = $body->skeleton->count(); $j < $n; $j++) {
            array_push($row, ...($byJoint[$j] ?? $body->skeleton->restRotation($j)));
        }
        array_push($row, ...$face->row($c->face));
        array_push($row, $c->root[0] * $s, $c->root[1] * $s, $c->root[2]);

        return $row;
    }
}

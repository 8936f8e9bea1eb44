<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Q4;

/** The fingers of one hand, closed together or each as far as it can. Angles are radians, about 0 open to 1.4 a fist. */
final class Fingers
{
    private const NAMES = ['index', 'middle', 'ring', 'little'];

    /** Bent back as far as fingers go. */
    private const OPEN = -0.35;

    private const SHUT = 1.3;

    public function __construct(private readonly Person $person, private readonly string $side)
    {
    }

    public function all(int $f, float $curl, float $weight): void
    {
        $this->put($f, $this->person->figure->fist($this->side, round($curl, 3)), $weight);
    }

    /** @param  array<string, float>  $curls  by finger */
    public function each(int $f, array $curls, float $weight): void
    {
        foreach ($curls as $finger => $curl) {
            $this->put($f, $this->of($finger, $curl), $weight);
        }
    }

    /**
     * How far each finger closes until its drawn skin is no nearer to a surface than allowed.
     *
     * @return array<string, float>
     */
    public function closed(Relief $relief, int $f, float $clear): array
    {
        $out = [];
        foreach (self::NAMES as $finger) {
            $skin = $this->person->skin->vertices(["{$finger}1{$this->side}", "{$finger}2{$this->side}"]);
            [$low, $high] = [self::OPEN, self::SHUT];
            for ($i = 0; $i < 7; $i++) {
                $curl = ($low + $high) / 2;
                $this->put($f, $this->of($finger, $curl), 1.0);
                ($relief->least($this->person->drawn($skin, $f)) ?? 1.0) >= $clear ? $low = $curl : $high = $curl;
            }
            $out[$finger] = min($low, 0.95);
            $this->put($f, $this->of($finger, $out[$finger]), 1.0);
        }

        return $out;
    }

    /** @return array<int, array{float, float, float, float}> */
    private function of(string $finger, float $curl): array
    {
        $all = $this->person->figure->fist($this->side, round($curl, 3));
        $skeleton = $this->person->figure->skeleton;
        $own = array_filter([$skeleton->joint("{$finger}1{$this->side}"), $skeleton->joint("{$finger}2{$this->side}")], is_int(...));

        return array_intersect_key($all, array_flip($own));
    }

    /** @param  array<int, array{float, float, float, float}>  $turns */
    private function put(int $f, array $turns, float $weight): void
    {
        $posture = $this->person->posture($f);
        foreach ($turns as $j => $q) {
            $posture->turnLocal($j, $weight >= 1.0 ? $q : Q4::slerp($posture->local($j), $q, $weight));
        }
    }
}

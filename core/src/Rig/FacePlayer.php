<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Ease;

/** Shapes by their names on one face, whatever that calls its own: each name is looked up once. */
final class FacePlayer
{
    /** Beyond its full measure a shape may go by so much. */
    public const MOST = 1.2;

    /** @var array<string, array<int, float>> the face's shapes by the name that is asked for, with their shares */
    private array $known = [];

    /** @param  list<string>  $morphs  the face's own shapes, in its order */
    public function __construct(private readonly array $morphs)
    {
    }

    /** @return array<int, float> which of the face's shapes play a name, and how much of each */
    public function of(string $name): array
    {
        return $this->known[$name] ??= $this->found($name);
    }

    /** @return array<int, float> */
    private function found(string $name): array
    {
        $out = [];
        foreach (FaceShapes::map([$name], $this->morphs) as $k => $shares) {
            // One side of two on a shape that knows no sides: half of it.
            $half = FaceShapes::side($name) !== '' && FaceShapes::side($this->morphs[$k]) === '' ? 0.5 : 1.0;
            $out[$k] = $half * array_sum($shares);
        }

        return $out;
    }

    /**
     * @param  array<string, float>  $shapes  by name
     * @return array<int, float> how much they come to of the face's own shapes, by their places; of the others none
     */
    public function sums(array $shapes): array
    {
        $out = [];
        foreach ($shapes as $name => $value) {
            foreach ($value === 0.0 ? [] : $this->of($name) as $k => $share) {
                $out[$k] = ($out[$k] ?? 0.0) + $share * $value;
            }
        }

        return $out;
    }

    /**
     * @param  array<string, float>  $shapes  by name
     * @return list<float> of each of the face's own shapes
     */
    public function row(array $shapes): array
    {
        $row = array_fill(0, count($this->morphs), 0.0);
        foreach ($this->sums($shapes) as $k => $v) {
            $row[$k] = Ease::clamp($v, 0.0, self::MOST);
        }

        return array_values($row);
    }
}

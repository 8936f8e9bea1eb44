<?php

declare(strict_types=1);

namespace CrispReel\Core\Reel;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Shot;
use OutOfRangeException;

/** Reel time to (shot, scene frame, camera) and back, exact in frames. A scene frame may be in several shots. */
final readonly class ReelMap
{
    /** @var list<int> reel frame at which each shot begins */
    private array $starts;

    public int $length;

    /** @param  list<Shot>  $shots in order */
    public function __construct(private array $shots)
    {
        $at = 0;
        $starts = [];
        foreach ($shots as $s) {
            $starts[] = $at;
            $at += $s->length();
        }
        $this->starts = $starts;
        $this->length = $at;
    }

    public static function of(CompiledScene $scene): self
    {
        return new self($scene->shots);
    }

    /** @return array{int, int, string} shot number, scene frame, camera */
    public function toScene(int $reelFrame): array
    {
        if ($reelFrame < 0 || $reelFrame >= $this->length) {
            throw new OutOfRangeException("The reel has no frame {$reelFrame}; it runs from 0 to ".($this->length - 1).'.');
        }
        $low = 0;
        $high = count($this->starts);
        while ($high - $low > 1) {
            $k = ($low + $high) >> 1;
            $this->starts[$k] <= $reelFrame ? $low = $k : $high = $k;
        }
        $shot = $this->shots[$low];

        return [$low, $shot->in + $reelFrame - $this->starts[$low], $shot->camera];
    }

    public function toReel(int $shot, int $sceneFrame): int
    {
        $s = $this->shots[$shot] ?? throw new OutOfRangeException("The reel has no shot {$shot}.");
        if ($sceneFrame < $s->in || $sceneFrame >= $s->out) {
            throw new OutOfRangeException("Shot {$s->label} does not show scene frame {$sceneFrame}.");
        }

        return $this->starts[$shot] + $sceneFrame - $s->in;
    }

    /** @return list<int> every reel frame that shows a scene frame */
    public function showing(int $sceneFrame): array
    {
        $out = [];
        foreach ($this->shots as $i => $s) {
            if ($sceneFrame >= $s->in && $sceneFrame < $s->out) {
                $out[] = $this->starts[$i] + $sceneFrame - $s->in;
            }
        }

        return $out;
    }
}

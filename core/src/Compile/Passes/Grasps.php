<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Grasp;
use CrispReel\Core\Compile\Pass;

/** Hands that close on what they carry. */
final class Grasps implements Pass
{
    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $draft->putGrasps($this->grasps());
    }

    /** @return array<string, list<Grasp>> */
    private function grasps(): array
    {
        $out = [];
        foreach ($this->draft->document->links as $l) {
            $side = match ($l->mount) {
                'handL' => 'L', 'handR' => 'R', default => null,
            };
            if ($side !== null && $l->keep === 'grip') {
                $out[$l->parent][] = new Grasp($side, $l->from, $l->to, 1.15);
            }
        }

        return $out;
    }
}

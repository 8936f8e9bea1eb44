<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/** Where one foot is: ankle place, pitch of foot and toes (toes up positive), heading, and whether it carries weight. */
final readonly class Footing
{
    /** @param  array{float, float, float}  $ankle */
    public function __construct(
        public array $ankle,
        public float $pitch,
        public float $toePitch,
        public float $heading,
        public bool $down,
        public float $share,
    ) {
    }
}

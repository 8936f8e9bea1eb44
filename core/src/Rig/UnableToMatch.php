<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\CoreFailure;
use RuntimeException;

final class UnableToMatch extends RuntimeException implements CoreFailure
{
    private function __construct(private readonly string $reasonName, string $message, private readonly string $remedyText)
    {
        parent::__construct($message);
    }

    public static function role(string $role, bool $ofTarget): self
    {
        return new self(
            'rig.role',
            sprintf('No joint of the %s is known as %s.', $ofTarget ? 'performer' : 'motion', $role),
            'Match its joints by hand: say which joint plays this part.',
        );
    }

    public static function noLegs(): self
    {
        return new self('rig.bones', 'The legs of the motion\'s skeleton have no length.', 'Export it with its bone offsets.');
    }

    public static function joint(string $role, string $joint): self
    {
        return new self('rig.joint', "There is no joint \"{$joint}\" to play the part {$role}.", 'Give the name of one of its joints.');
    }

    public static function part(string $role): self
    {
        return new self(
            'rig.part',
            "\"{$role}\" is not a part of a body.",
            'Use hips, spine, chest, upperChest, neck, head, jaw, or with L or R: eye, shoulder, upperArm, lowerArm, hand, upperLeg, lowerLeg, foot, toes.',
        );
    }

    public function reason(): string
    {
        return $this->reasonName;
    }

    public function remedy(): string
    {
        return $this->remedyText;
    }
}

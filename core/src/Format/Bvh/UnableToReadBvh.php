<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Bvh;

use CrispReel\Core\CoreFailure;
use RuntimeException;

final class UnableToReadBvh extends RuntimeException implements CoreFailure
{
    private function __construct(private readonly string $reasonName, string $message, private readonly string $remedyText)
    {
        parent::__construct($message);
    }

    public static function at(int $line, string $what): self
    {
        return new self('bvh.syntax', "Line {$line} of the BVH file: {$what}.", 'Export the motion again as BVH.');
    }

    public static function noFrames(int $frames): self
    {
        return new self(
            'bvh.frames',
            $frames === 0 ? 'The BVH file has no frames.' : 'The BVH file has one frame only, which is a pose and no motion.',
            'Export at least two frames.',
        );
    }

    public static function tooMuch(string $what, int $count, int $most): self
    {
        return new self(
            'bvh.too-large',
            sprintf('The BVH file has %d %s; at most %d are taken.', $count, $what, $most),
            'Export a shorter range, or fewer frames a second.',
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

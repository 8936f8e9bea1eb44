<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\CoreFailure;
use RuntimeException;

/** An intention that a scene does not allow. */
final class UnableToStage extends RuntimeException implements CoreFailure
{
    private function __construct(private readonly string $reason, string $message, private readonly string $remedy)
    {
        parent::__construct($message);
    }

    public static function noBeat(string $beat): self
    {
        return new self('beat.gone', "There is no beat \"{$beat}\" in this scene.", 'Look at the scene again: it may have been removed.');
    }

    public static function nowhere(string $edge, int $frame): self
    {
        return new self(
            'beat.trim',
            $edge === 'in' ? "The beat cannot begin at frame {$frame}: it has nothing before." : "The beat cannot end at frame {$frame}.",
            'Drop its edge between its other edge and where the motion itself begins or ends.',
        );
    }

    public static function because(string $reason, string $message, string $remedy): self
    {
        return new self($reason, $message, $remedy);
    }

    public function reason(): string
    {
        return $this->reason;
    }

    public function remedy(): string
    {
        return $this->remedy;
    }
}

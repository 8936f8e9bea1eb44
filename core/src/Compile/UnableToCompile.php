<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\CoreFailure;
use RuntimeException;

final class UnableToCompile extends RuntimeException implements CoreFailure
{
    private function __construct(private readonly string $reasonName, string $message, private readonly string $remedyText)
    {
        parent::__construct($message);
    }

    /** One that was thrown in another process, by its parts. */
    public static function as(string $reason, string $message, string $remedy): self
    {
        return new self($reason, $message, $remedy);
    }

    /** @param  list<string>  $names */
    public static function linkCycle(array $names): self
    {
        return new self(
            'link.cycle',
            'These things carry each other in a circle: '.implode(' > ', $names).'.',
            'Take one of the carries away.',
        );
    }

    public static function noSuchMount(string $parent, string $mount): self
    {
        return new self(
            'link.mount',
            "\"{$parent}\" has no joint or mount called \"{$mount}\".",
            'Choose a hand, another joint, or the whole thing.',
        );
    }

    public static function noFigure(string $motion, string $item): self
    {
        return new self(
            'motion.figure',
            "The motion \"{$motion}\" cannot be put on \"{$item}\": it is not a figure with human joints.",
            'Choose a performer whose joints are matched.',
        );
    }

    public static function emptyMotion(string $motion): self
    {
        return new self('motion.empty', "The motion \"{$motion}\" has no length.", 'Bring in a motion with at least two keys.');
    }

    public static function noPathFor(string $motion): self
    {
        return new self('motion.path', "The motion \"{$motion}\" does not follow a path.", 'Choose a walk, or take the path away.');
    }

    public static function noContact(string $item): self
    {
        return new self(
            'contact.figure',
            "\"{$item}\" has no human joints to hold on with.",
            'Choose a performer whose joints are matched.',
        );
    }

    public static function noRoute(string $item): self
    {
        return new self(
            'route.performer',
            "\"{$item}\" is a performer, who walks along a path and drives no route.",
            'Give a walk of the performer a path.',
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

<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Line;
use CrispReel\Core\Speech\Mouth;
use CrispReel\Core\Speech\Reading;
use CrispReel\Core\Speech\Script;

/** A line, settled: when it begins and how it is read. Frames are those of the scene and may lie between two. */
final readonly class Utterance
{
    public float $end;

    /** Frames at which its first sound begins and its last one ends. */
    public float $from;

    public float $to;

    /** @var array{float, float} the same in seconds of the reading */
    public array $spoken;

    /** @var list<array{float, float}> seconds of its phrases */
    public array $phrases;

    public bool $asks;

    public bool $shouts;

    public function __construct(
        public Line $line, public float $start, public Reading $reading, public Mouth $mouth, public string $digest,
        public float $perSecond,
    ) {
        $this->end = $start + $reading->seconds * $perSecond;
        $this->phrases = $reading->phrases();
        $this->spoken = [$from, $to] = $reading->spoken();
        $this->asks = Script::asks($line->text);
        $this->shouts = Script::shouts($line->text);
        $this->from = $start + $from * $perSecond;
        $this->to = $start + $to * $perSecond;
    }

    /** Seconds into the reading at a frame of the scene. */
    public function seconds(float $frame): float
    {
        return ($frame - $this->start) / $this->perSecond;
    }

    public function frame(float $seconds): float
    {
        return $this->start + $seconds * $this->perSecond;
    }

    /** What is seen of it depends on this. */
    public function fingerprint(): string
    {
        return "{$this->start} {$this->digest} {$this->line->delivery} ".crc32($this->line->text);
    }
}

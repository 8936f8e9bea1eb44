<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A motion in use on a performer's lane. Source times are seconds into the motion; the beat plays at $speed. */
final readonly class Beat
{
    public const ROOTS = ['travel', 'spot'];

    public const JOINS = ['carryOn', 'blend', 'cut'];

    /** @param  array<string, mixed>  $settings numbers handed to a generated motion */
    public function __construct(
        public string $id,
        public string $item,
        public string $motion,
        public int $start,
        public float $sourceIn,
        public ?float $sourceOut,
        public float $speed,
        public int $loops,
        public string $root,
        public string $join,
        public int $joinFrames,
        public array $settings,
        public ?Path $path,
        public Play $play,
    ) {
    }

    public static function from(Input $in): self
    {
        return new self(
            $in->id('id'), $in->id('item'), $in->id('motion'), $in->whole('start', 0, 0, 1_000_000),
            $in->number('sourceIn', 0.0, 0.0, 3600), $in->has('sourceOut') ? $in->number('sourceOut', null, 0.0, 3600) : null,
            $in->number('speed', 1.0, 0.05, 20), $in->whole('loops', 1, 1, 10_000), $in->choice('root', self::ROOTS, 'travel'),
            $in->choice('join', self::JOINS, 'carryOn'), $in->whole('joinFrames', 8, 0, 240), $in->map('settings'),
            Path::from($in), Play::from($in),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'item' => $this->item, 'motion' => $this->motion, 'start' => $this->start, 'sourceIn' => $this->sourceIn,
            'sourceOut' => $this->sourceOut, 'speed' => $this->speed, 'loops' => $this->loops, 'root' => $this->root,
            'join' => $this->join, 'joinFrames' => $this->joinFrames, 'settings' => (object) $this->settings,
            'path' => $this->path?->toArray(), 'play' => (object) $this->play->toArray(),
        ];
    }
}

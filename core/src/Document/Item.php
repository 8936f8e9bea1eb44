<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** Something placed in the scene. Heading is the turn about +Y from +Z towards +X, degrees. */
final readonly class Item
{
    public const KINDS = ['performer', 'set', 'prop'];

    /** @param  array{float, float, float}  $position metres */
    public function __construct(
        public string $id,
        public string $kind,
        public string $name,
        public string $asset,
        public array $position,
        public float $headingDeg,
        public float $scale,
        public int $tape,
    ) {
    }

    public static function from(Input $in): self
    {
        return new self(
            $in->id('id'), $in->choice('kind', self::KINDS), $in->text('name'), $in->id('asset'), $in->vector('position'),
            $in->number('headingDeg', 0.0, -36000, 36000), $in->number('scale', 1.0, 0.001, 1000), $in->whole('tape', 0, 0, 7),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'kind' => $this->kind, 'name' => $this->name, 'asset' => $this->asset,
            'position' => $this->position, 'headingDeg' => $this->headingDeg, 'scale' => $this->scale, 'tape' => $this->tape,
        ];
    }
}

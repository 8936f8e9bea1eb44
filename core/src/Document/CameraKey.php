<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A camera's place and lens at a frame; the ease leads from this key to the next. Without a focus it follows the subject. */
final readonly class CameraKey
{
    public const EASES = ['linear', 'in', 'out', 'inOut', 'hold'];

    /**
     * @param  array{float, float, float}  $position
     * @param  array{float, float, float, float}  $rotation  looks along its own -Z
     */
    public function __construct(
        public int $frame,
        public array $position,
        public array $rotation,
        public float $focalMm,
        public ?float $focusMetres,
        public float $fStop,
        public string $ease,
    ) {
    }

    public static function from(Input $in): self
    {
        return new self(
            $in->whole('frame', 0, 0), $in->vector('position'), $in->quaternion('rotation'), $in->number('focalMm', 35.0, 4.0, 1200.0),
            $in->has('focusMetres') ? $in->number('focusMetres', null, 0.05, 10_000) : null, $in->number('fStop', 4.0, 0.7, 64.0),
            $in->choice('ease', self::EASES, 'inOut'),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'frame' => $this->frame, 'position' => $this->position, 'rotation' => $this->rotation, 'focalMm' => $this->focalMm,
            'focusMetres' => $this->focusMetres, 'fStop' => $this->fStop, 'ease' => $this->ease,
        ];
    }
}

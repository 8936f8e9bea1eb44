<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

final readonly class Camera
{
    /** @param  list<CameraKey>  $keys one or more, in frame order */
    public function __construct(
        public string $id,
        public string $letter,
        public string $name,
        public float $sensorWidthMm,
        public float $sensorHeightMm,
        public array $keys,
    ) {
    }

    public static function from(Input $in): self
    {
        $keys = array_map(CameraKey::from(...), $in->each('keys', 5000));
        if ($keys === []) {
            throw UnableToReadDocument::at($in->path('keys'), 'a camera needs at least one key');
        }
        usort($keys, static fn (CameraKey $a, CameraKey $b): int => $a->frame <=> $b->frame);

        return new self(
            $in->id('id'),
            $in->text('letter', 'A', 3),
            $in->text('name', ''),
            $in->number('sensorWidthMm', 36.0, 1, 200),
            $in->number('sensorHeightMm', 24.0, 1, 200),
            $keys,
        );
    }

    /** Whether its focus follows whoever is nearest to the middle of the picture. */
    public function followsFocus(): bool
    {
        return array_filter($this->keys, static fn (CameraKey $k): bool => $k->focusMetres === null) !== [];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'letter' => $this->letter, 'name' => $this->name, 'sensorWidthMm' => $this->sensorWidthMm,
            'sensorHeightMm' => $this->sensorHeightMm, 'keys' => array_map(static fn (CameraKey $k): array => $k->toArray(), $this->keys),
        ];
    }
}

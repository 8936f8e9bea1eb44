<?php

declare(strict_types=1);

namespace CrispReel\Core\Bake;

/** What one item or camera does over the scene, as the pose stream carries it. */
final readonly class Track
{
    /**
     * @param  string  $id  of the item or the camera
     * @param  "place"|"figure"|"cloth"|"camera"  $kind
     * @param  int  $stride  numbers in a row
     * @param  list<float>|null  $still  its one row, where it never moves; then it has no pieces
     */
    public function __construct(
        public string $id,
        public string $kind,
        public int $stride,
        public int $joints = 0,
        public int $morphs = 0,
        public int $particles = 0,
        public ?array $still = null,
    ) {
    }

    /** @return array<string, mixed> as a manifest tells it */
    public function toArray(): array
    {
        return array_filter([
            'kind' => $this->kind, 'stride' => $this->stride, 'joints' => $this->joints, 'morphs' => $this->morphs,
            'particles' => $this->particles, 'still' => $this->still,
        ]);
    }
}

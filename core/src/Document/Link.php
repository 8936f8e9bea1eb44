<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A carry: the child goes with a joint, mount or the whole of the parent from a frame up to (not including) a frame. */
final readonly class Link
{
    /** What happens at the end: it stays where it is, or falls; a later carry then catches it. */
    public const RELEASES = ['stay', 'fall'];

    public const KEEPS = ['place', 'grip'];

    /** @param  array{float, float, float}|null  $velocity  metres a second at the release; null: as it was carried */
    public function __construct(
        public string $id,
        public string $child,
        public string $parent,
        public string $mount,
        public int $from,
        public ?int $to,
        public string $keep,
        public int $easeFrames,
        public string $release = 'stay',
        public ?array $velocity = null,
    ) {
    }

    public static function from(Input $in): self
    {
        $link = new self(
            $in->id('id'), $in->id('child'), $in->id('parent'), $in->text('mount', ''), $in->whole('from', 0, 0),
            $in->has('to') ? $in->whole('to', null, 0) : null, $in->choice('keep', self::KEEPS, 'place'),
            $in->whole('easeFrames', 0, 0, 240),
            $in->choice('release', self::RELEASES, 'stay'), $in->has('velocity') ? $in->vector('velocity') : null,
        );
        if ($link->to !== null && $link->to <= $link->from) {
            throw UnableToReadDocument::at($in->path('to'), 'a carry ends after it begins');
        }

        return $link;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'child' => $this->child, 'parent' => $this->parent, 'mount' => $this->mount,
            'from' => $this->from, 'to' => $this->to, 'keep' => $this->keep, 'easeFrames' => $this->easeFrames,
            'release' => $this->release, 'velocity' => $this->velocity,
        ];
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/**
 * A correction of one joint over some frames, added after all beats: a turn in the joint's own space and, for the hips, a
 * shift in the performer's. Between its keys it changes smoothly; it fades in before the first frame and out at its end.
 */
final readonly class TouchUp
{
    /** @param  list<array{frame: int, rotation: array{float, float, float, float}, shift: array{float, float, float}}>  $keys  at least one, rising */
    public function __construct(
        public string $id,
        public string $item,
        public string $joint,
        public int $from,
        public ?int $to,
        public int $easeIn,
        public int $easeOut,
        public array $keys,
    ) {
    }

    public static function from(Input $in): self
    {
        $keys = [];
        foreach ($in->each('keys', 1000) as $key) {
            $keys[] = [
                'frame' => $key->whole('frame', null, 0),
                'rotation' => $key->has('rotation') ? $key->quaternion('rotation') : [0.0, 0.0, 0.0, 1.0],
                'shift' => $key->has('shift') ? $key->vector('shift') : [0.0, 0.0, 0.0],
            ];
        }
        if ($keys === []) {
            throw UnableToReadDocument::at($in->path('keys'), 'a touch-up needs at least one key');
        }
        usort($keys, static fn (array $a, array $b): int => $a['frame'] <=> $b['frame']);
        $from = $in->whole('from', 0, 0);
        $to = $in->has('to') ? $in->whole('to', null, 0) : null;
        if ($to !== null && $to <= $from) {
            throw UnableToReadDocument::at($in->path('to'), 'a touch-up ends after it begins');
        }

        return new self(
            $in->id('id'), $in->id('item'), $in->text('joint', null, 80), $from, $to, $in->whole('easeIn', 6, 0, 240),
            $in->whole('easeOut', 6, 0, 240), $keys,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'item' => $this->item, 'joint' => $this->joint, 'from' => $this->from, 'to' => $this->to,
            'easeIn' => $this->easeIn, 'easeOut' => $this->easeOut, 'keys' => $this->keys,
        ];
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/**
 * A part of a performer that is held to a place from a frame up to (not including) a frame: a point of the scene, or a
 * place on an item, joint or mount. It eases in before the first frame, so that it is there on it, and out from the last.
 */
final readonly class Contact
{
    public const EFFECTORS = ['hips', 'footL', 'footR', 'head', 'handL', 'handR', 'look'];

    /** How the part turns: as the motion has it, with the limb, or as the target. */
    public const TURNS = ['keep', 'follow', 'match'];

    /**
     * @param  string|null  $target  item; null: a point of the scene
     * @param  string  $mount  joint, role or mount of the target; empty: the whole of it
     * @param  array{float, float, float}  $offset  metres, in the target's space or the scene's
     */
    public function __construct(
        public string $id,
        public string $item,
        public string $effector,
        public ?string $target,
        public string $mount,
        public array $offset,
        public int $from,
        public ?int $to,
        public int $easeIn,
        public int $easeOut,
        public string $turn,
    ) {
    }

    public static function from(Input $in): self
    {
        $from = $in->whole('from', 0, 0);
        $to = $in->has('to') ? $in->whole('to', null, 0) : null;
        if ($to !== null && $to <= $from) {
            throw UnableToReadDocument::at($in->path('to'), 'a contact ends after it begins');
        }

        return new self(
            $in->id('id'), $in->id('item'), $in->choice('effector', self::EFFECTORS), $in->has('target') ? $in->id('target') : null,
            $in->text('mount', '', 80),
            $in->has('offset') ? $in->vector('offset') : [0.0, 0.0, 0.0], $from, $to, $in->whole('easeIn', 8, 0, 240),
            $in->whole('easeOut', 8, 0, 240), $in->choice('turn', self::TURNS, 'follow'),
        );
    }

    /** Share of the contact at a frame. */
    public function weight(float $frame): float
    {
        return Span::weight($frame, $this->from, $this->to, $this->easeIn, $this->easeOut);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'item' => $this->item, 'effector' => $this->effector, 'target' => $this->target, 'mount' => $this->mount,
            'offset' => $this->offset,
            'from' => $this->from, 'to' => $this->to, 'easeIn' => $this->easeIn, 'easeOut' => $this->easeOut, 'turn' => $this->turn,
        ];
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Frames;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Text;
use CrispReel\Core\Document\Fields\Yes;

/** A camera on the scene from an in to an out frame (exclusive); without an out it runs to the end of the scene. */
#[Row('shots', 's', 'shot', order: 'sort')]
final readonly class Shot
{
    use OfFields;

    public const BEGINS = ['cut', 'dissolve', 'black', 'white'];

    public const ENDS = ['cut', 'black', 'white'];

    /**
     * @param  string  $begins  how it comes: cut, dissolved from the one before, or out of a colour
     * @param  int  $beginsOver  frames of that, around its cut
     * @param  string  $ends  how the reel goes, where this is its last shot
     * @param  bool  $kept  a first cut leaves it as it is
     */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Camera::class, owner: true)] public string $camera,
        #[Frame(column: 'in_frame')] public int $in,
        #[Frame(1, after: 'in', says: 'a shot ends after it begins', column: 'out_frame')] public ?int $out = null,
        #[Text(20)] public string $label = '',
        #[Choice(self::BEGINS)] public string $begins = 'cut',
        #[Frames(1, 240)] public int $beginsOver = 12,
        #[Choice(self::ENDS)] public string $ends = 'cut',
        #[Frames(1, 240)] public int $endsOver = 24,
        #[Yes] public bool $kept = false,
    ) {
    }

    /** With the out frame settled; at least one frame long. */
    public function until(int $end): self
    {
        return $this->spanning($this->in, $this->out ?? max($end, $this->in + 1));
    }

    /** The same shot over other frames; a part of it that is new has no id. */
    public function spanning(int $in, int $out, ?string $id = null): self
    {
        return new self(
            $id ?? $this->id, $this->camera, $in, $out, $this->label, $this->begins, $this->beginsOver, $this->ends, $this->endsOver,
            $this->kept,
        );
    }

    public function length(): int
    {
        return $this->out === null ? 0 : $this->out - $this->in;
    }
}

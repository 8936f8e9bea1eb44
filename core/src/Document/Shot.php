<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Text;

/** A camera on the scene from an in to an out frame (exclusive); without an out it runs to the end of the scene. */
#[Row('shots', 's', 'shot', order: 'sort')]
final readonly class Shot
{
    use OfFields;

    public function __construct(
        #[Id] public string $id,
        #[Ref(Camera::class, owner: true)] public string $camera,
        #[Frame(column: 'in_frame')] public int $in,
        #[Frame(1, after: 'in', says: 'a shot ends after it begins', column: 'out_frame')] public ?int $out = null,
        #[Text(20)] public string $label = '',
    ) {
    }

    /** With the out frame settled; at least one frame long. */
    public function until(int $end): self
    {
        return new self($this->id, $this->camera, $this->in, $this->out ?? max($end, $this->in + 1), $this->label);
    }

    public function length(): int
    {
        return $this->out === null ? 0 : $this->out - $this->in;
    }
}

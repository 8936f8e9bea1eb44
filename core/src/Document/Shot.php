<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A camera on the scene from an in to an out frame (exclusive); without an out it runs to the end of the scene. */
final readonly class Shot
{
    public function __construct(public string $id, public string $camera, public int $in, public ?int $out, public string $label)
    {
    }

    public static function from(Input $in): self
    {
        $shot = new self(
            $in->id('id'),
            $in->id('camera'),
            $in->whole('in', null, 0),
            $in->has('out') ? $in->whole('out', null, 1) : null,
            $in->text('label', '', 20),
        );
        if ($shot->out !== null && $shot->out <= $shot->in) {
            throw UnableToReadDocument::at($in->path('out'), 'a shot ends after it begins');
        }

        return $shot;
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

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['id' => $this->id, 'camera' => $this->camera, 'in' => $this->in, 'out' => $this->out, 'label' => $this->label];
    }
}

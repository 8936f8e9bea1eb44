<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Document\Framing;

/** A set-up that may be taken: what it is called, the framing that a camera would get, and what it would see, or why it cannot. */
final readonly class Proposal
{
    /**
     * @param  string  $family  under which it is listed
     * @param  CameraPose|null  $view  null: it is refused
     * @param  string  $says  why it is refused, or what was changed so that it can be
     * @param  bool  $crosses  whether it stands across the line that the cameras so far keep to
     */
    public function __construct(
        public string $family,
        public string $title,
        public Framing $framing,
        public ?CameraPose $view,
        public string $says = '',
        public bool $crosses = false,
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'family' => $this->family, 'title' => $this->title,
            'framing' => array_diff_key($this->framing->toArray(), ['id' => 0, 'camera' => 0]),
            'view' => $this->view === null ? null : get_object_vars($this->view), 'says' => $this->says, 'crosses' => $this->crosses,
        ];
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;

/** A text, of a form if one is given. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Text extends Field
{
    /**
     * @param  string|null  $form  regular expression between slashes
     * @param  string  $says  what is told of a text of another form
     * @param  string  $remedy  and what to do
     */
    public function __construct(
        public int $most = 200,
        public ?string $form = null,
        public string $says = '',
        public string $remedy = '',
        ?string $column = null,
    ) {
        parent::__construct($column);
    }

    public function read(Input $in, string $name): string
    {
        $text = $in->text($name, null, $this->most);
        if ($this->form !== null && preg_match($this->form, $text) !== 1) {
            $problem = sprintf($this->says, $text);
            throw $this->remedy === ''
                ? UnableToReadDocument::at($in->path($name), $problem)
                : UnableToReadDocument::at($in->path($name), $problem, $this->remedy);
        }

        return $text;
    }

    public function schema(): array
    {
        return ['type' => 'string', 'maxLength' => $this->most] + ($this->form === null ? [] : ['pattern' => trim($this->form, '/')]);
    }

    public function holds(): Holds
    {
        return Holds::Text;
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;

/** A list of values with fields of their own, in the order of their frames where they have any. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Many extends Field
{
    /**
     * @param  class-string  $of
     * @param  string  $says  what is told of too few
     * @param  string|null  $by  a field of theirs by which the stored column keeps them; null: as a list
     */
    public function __construct(
        public string $of,
        public int $most,
        public int $least = 0,
        public string $says = '',
        public ?string $by = null,
    ) {
        parent::__construct();
    }

    /** @return list<object> */
    public function read(Input $in, string $name): array
    {
        $out = [];
        foreach ($in->each($name, $this->most) as $one) {
            $out[] = FieldList::read($this->of, $one);
        }
        if (count($out) < $this->least) {
            throw UnableToReadDocument::at($in->path($name), $this->says);
        }
        $frames = array_column($out, 'frame');
        if ($frames !== []) {
            array_multisort($frames, $out);
        }

        return $out;
    }

    public function write(mixed $value): mixed
    {
        return is_array($value)
            ? array_map(static fn (mixed $v): array => is_object($v) ? FieldList::write($v) : [], array_values($value))
            : [];
    }

    public function schema(): array
    {
        return ['type' => 'array', 'minItems' => $this->least, 'maxItems' => $this->most, 'items' => JsonSchema::ref($this->of)];
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** An asset at one version: $blob and $digest are SHA-256 of the file and of its digest. */
final readonly class AssetRef
{
    public const KINDS = ['performer', 'set', 'prop', 'motion'];

    public function __construct(public string $id, public string $kind, public string $name, public string $blob, public string $digest)
    {
    }

    public static function from(Input $in): self
    {
        return new self($in->id('id'), $in->choice('kind', self::KINDS), $in->text('name'), $in->text('blob'), $in->text('digest'));
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['id' => $this->id, 'kind' => $this->kind, 'name' => $this->name, 'blob' => $this->blob, 'digest' => $this->digest];
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Text;

/** An asset at one version: $blob and $digest are SHA-256 of the file and of its digest. */
final readonly class AssetRef
{
    use OfFields;

    public const KINDS = ['performer', 'set', 'prop', 'motion', 'reading', 'sound'];

    public function __construct(
        #[Id] public string $id,
        #[Choice(self::KINDS)] public string $kind,
        #[Text] public string $name,
        #[Text] public string $blob,
        #[Text] public string $digest,
    ) {
    }
}

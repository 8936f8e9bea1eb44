<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choices;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Text;
use CrispReel\Core\Document\Fields\Yes;

/** A camera by its letter. Its keys say where it is and what lens it has. */
#[Row('cameras', 'c', 'camera', order: 'letter')]
final readonly class Camera
{
    use OfFields;

    /** As a whole room names them: one looks at the back from the front. */
    public const WALLS = ['back', 'left', 'right', 'front', 'ceiling'];

    /**
     * @param  list<CameraKey>  $keys one or more, in frame order
     * @param  list<string>|null  $wallsAway  wild walls taken away for it by hand; null: those that it stands behind
     * @param  bool  $locked  nothing of it changes until it is unlocked
     */
    public function __construct(
        #[Id] public string $id,
        #[Text(3)] public string $letter = 'A',
        #[Text(80)] public string $name = '',
        #[Number(1, 200, 'mm')] public float $sensorWidthMm = 36.0,
        #[Number(1, 200, 'mm')] public float $sensorHeightMm = 24.0,
        #[Many(CameraKey::class, most: 5000, least: 1, says: 'a camera needs at least one key')] public array $keys = [],
        #[Yes] public bool $locked = false,
        #[Part(Shake::class)] public ?Shake $shake = null,
        #[Choices(self::WALLS)] public ?array $wallsAway = null,
    ) {
    }

    /** Whether its focus follows whoever is nearest to the middle of the picture. */
    public function followsFocus(): bool
    {
        return array_filter($this->keys, static fn (CameraKey $k): bool => $k->focusMetres === null) !== [];
    }
}

<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** How much a finding matters. */
enum Severity: string
{
    /** It spoils the picture or the motion until it is mended. */
    case Harms = 'harms';

    /** It may be meant so. */
    case Look = 'look';

    /** Told for completeness; nothing in the picture changes. */
    case Fyi = 'fyi';
}

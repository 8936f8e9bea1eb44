<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

/** How a stored column holds a field. */
enum Holds
{
    case Whole;
    case Number;
    case Text;
    case YesNo;
    case Json;
}

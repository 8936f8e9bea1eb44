<?php

declare(strict_types=1);

namespace App\Speech;

use RuntimeException;

/** A line that no voice could read; the message is for who wrote it. */
final class NoVoice extends RuntimeException
{
}

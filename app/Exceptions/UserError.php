<?php

declare(strict_types=1);

namespace App\Exceptions;

use RuntimeException;

/** Something a person asked for that cannot be done: what, and what to do. Answered with 422 unless another status is given. */
final class UserError extends RuntimeException
{
    public function __construct(
        public readonly string $reason,
        string $message,
        public readonly string $remedy,
        public readonly int $status = 422,
    ) {
        parent::__construct($message);
    }
}

<?php

declare(strict_types=1);

namespace LucidStep\App\Support;

use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Support\Facades\Crypt;

/**
 * An answer kept for a repeated request. It may hold what only its person sees, and lies encrypted.
 */
final class StoredAnswer
{
    public static function seal(string $json): string
    {
        return Crypt::encryptString($json);
    }

    /**
     * Answers kept before they were encrypted are as they were.
     */
    public static function open(string $kept): string
    {
        try {
            return Crypt::decryptString($kept);
        } catch (DecryptException) {
            return $kept;
        }
    }
}

<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;

/**
 * Answers when the application and its database do.
 */
final class UpController
{
    public function __invoke(): Response
    {
        DB::selectOne('select 1');

        return new Response('up', 200, ['Content-Type' => 'text/plain']);
    }

    /**
     * As little as an answer can be: what others are measured against.
     */
    public function bare(): JsonResponse
    {
        return new JsonResponse(['ok' => true]);
    }
}

<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;

/**
 * What whoever watches the node asks.
 */
final class UpController
{
    /**
     * Whether the node lives: it needs nothing but itself.
     */
    public function __invoke(): Response
    {
        return new Response('up', 200, ['Content-Type' => 'text/plain']);
    }

    /**
     * Whether the node can do its work: its database answers, and its storage takes a file.
     */
    public function ready(Filesystem $files): Response
    {
        $away = [];
        try {
            DB::selectOne('select 1');
        } catch (\PDOException) {
            $away[] = 'database';
        }
        try {
            $files->put('ready', (string) time());
        } catch (\Throwable) {
            $away[] = 'storage';
        }

        return [] === $away
            ? new Response('ready', 200, ['Content-Type' => 'text/plain'])
            : new Response('away: ' . implode(', ', $away), 503, ['Content-Type' => 'text/plain', 'Retry-After' => '5']);
    }

    /**
     * As little as an answer can be: what others are measured against.
     */
    public function bare(): JsonResponse
    {
        return new JsonResponse(['ok' => true]);
    }
}

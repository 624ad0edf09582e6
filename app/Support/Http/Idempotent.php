<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Support\Problems\KeyUsedOtherwise;
use LucidStep\App\Support\StoredAnswer;
use Symfony\Component\HttpFoundation\Response;

/**
 * The same `Idempotency-Key` again returns the first answer. The key is stored in the transaction of the
 * write itself: either both are there or neither. A second request with a key that is just being used waits
 * for the first at the unique index. When the device sends (`sent_at`) does not count: it is another time each time.
 */
final class Idempotent
{
    public function handle(Request $request, \Closure $next): Response
    {
        $key = $request->header('Idempotency-Key');
        if (null === $key) {
            return $this->withoutKey($request, $next);
        }
        if (!\is_string($key) || !Str::isUuid($key)) {
            throw ValidationException::withMessages(['Idempotency-Key' => 'The Idempotency-Key header must be a UUID.']);
        }
        $user = $request->user()?->getAuthIdentifier();
        $files = array_filter($request->allFiles(), static fn(mixed $f): bool => $f instanceof UploadedFile && $f->isValid());
        $fingerprint = hash(
            'sha256',
            $request->method() .
                ' ' .
                $request->path() .
                "\n" .
                json_encode($request->except([...array_keys($files), 'sent_at']), \JSON_PARTIAL_OUTPUT_ON_ERROR) .
                implode('', array_map(static fn(UploadedFile $f): string => "\n" . hash_file('sha256', $f->getPathname()), $files)),
        );
        DB::beginTransaction();
        $inserted = DB::table('idempotency_keys')->insertOrIgnore([
            'key' => $key,
            'user_id' => $user,
            'fingerprint' => $fingerprint,
            'status' => 0,
            'created_at' => now(),
        ]);
        if ($inserted === 0) {
            DB::rollBack();

            return $this->again($key, (string) $user, $fingerprint);
        }
        try {
            /** @var Response $response */
            $response = $next($request);
        } catch (\Throwable $e) {
            DB::rollBack();
            throw $e;
        }
        if ($response->getStatusCode() >= 300) {
            DB::rollBack();

            return $response;
        }
        DB::table('idempotency_keys')
            ->where('key', $key)
            ->update([
                'status' => $response->getStatusCode(),
                // An answer may hold what only this person sees.
                'body' => $response->getStatusCode() === 204 ? null : StoredAnswer::seal((string) $response->getContent()),
            ]);
        DB::commit();

        return $response;
    }

    private function again(string $key, string $user, string $fingerprint): Response
    {
        $first = DB::table('idempotency_keys')->where('key', $key)->first();
        if (null === $first || $first->user_id !== $user || $first->fingerprint !== $fingerprint) {
            throw KeyUsedOtherwise::refused();
        }

        return 204 === $first->status
            ? new Response('', 204, ['Idempotent-Replay' => 'true'])
            : JsonResponse::fromJsonString(StoredAnswer::open((string) $first->body), $first->status, ['Idempotent-Replay' => 'true']);
    }

    private function withoutKey(Request $request, \Closure $next): Response
    {
        DB::beginTransaction();
        try {
            /** @var Response $response */
            $response = $next($request);
        } catch (\Throwable $e) {
            DB::rollBack();
            throw $e;
        }
        $response->getStatusCode() >= 300 ? DB::rollBack() : DB::commit();

        return $response;
    }
}

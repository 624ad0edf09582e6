<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Mail\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use LucidStep\App\Areas\Mail\Data\CaughtMail;
use LucidStep\App\Areas\Mail\Queries\ReadCaughtMails;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\OpenApi\Get;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * The mails that were caught where none are sent.
 */
final class MailController
{
    #[Get('/mails', 'The mails that were caught instead of sent', CaughtMail::class, true)]
    public function index(Request $request, ReadCaughtMails $mails, Memberships $memberships): JsonResponse
    {
        if (!$mails->mayRead($memberships->person($request))) {
            throw new NotFoundHttpException();
        }

        return new JsonResponse($mails->newest());
    }
}

package org.vastshelf.standins.store;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import org.gaul.s3proxy.blobstore.BlobStore;
import org.gaul.s3proxy.blobstore.ForwardingBlobStore;
import org.gaul.s3proxy.blobstore.S3Exceptions;
import org.gaul.s3proxy.blobstore.domain.MultipartUpload;
import org.vastshelf.core.tier.StoreMood;
import software.amazon.awssdk.core.ResponseInputStream;
import software.amazon.awssdk.services.s3.model.CompleteMultipartUploadRequest;
import software.amazon.awssdk.services.s3.model.CompleteMultipartUploadResponse;
import software.amazon.awssdk.services.s3.model.CreateMultipartUploadRequest;
import software.amazon.awssdk.services.s3.model.DeleteObjectRequest;
import software.amazon.awssdk.services.s3.model.DeleteObjectResponse;
import software.amazon.awssdk.services.s3.model.GetObjectRequest;
import software.amazon.awssdk.services.s3.model.GetObjectResponse;
import software.amazon.awssdk.services.s3.model.HeadBucketRequest;
import software.amazon.awssdk.services.s3.model.HeadBucketResponse;
import software.amazon.awssdk.services.s3.model.HeadObjectRequest;
import software.amazon.awssdk.services.s3.model.HeadObjectResponse;
import software.amazon.awssdk.services.s3.model.ListObjectsV2Request;
import software.amazon.awssdk.services.s3.model.ListObjectsV2Response;
import software.amazon.awssdk.services.s3.model.PutObjectRequest;
import software.amazon.awssdk.services.s3.model.PutObjectResponse;
import software.amazon.awssdk.services.s3.model.UploadPartRequest;
import software.amazon.awssdk.services.s3.model.UploadPartResponse;

/** Blobs that are handed out as the mood allows. */
final class MoodyBlobs extends ForwardingBlobStore {

    private static final int BUSY = 503;
    private static final int FULL = 507;
    private static final int DENIED = 403;
    private static final int LOOK_AGAIN_MILLIS = 200;

    private final Path folder;

    MoodyBlobs(BlobStore blobs, Path folder) {
        super(blobs);
        this.folder = folder;
    }

    private void look(boolean writes) {
        try {
            StoreMood mood = StoreMoods.read(folder);
            Thread.sleep(mood.latencyMillis());
            while (mood.manner() == StoreMood.Manner.SILENT) {
                Thread.sleep(LOOK_AGAIN_MILLIS);
                mood = StoreMoods.read(folder);
            }
            switch (mood.manner()) {
                case BUSY -> throw S3Exceptions.fromStatusCode(BUSY);
                case DENIES -> throw S3Exceptions.fromStatusCode(DENIED);
                case FULL -> {
                    if (writes) {
                        throw S3Exceptions.fromStatusCode(FULL);
                    }
                }
                case ANSWERS, SILENT -> {}
            }
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        } catch (InterruptedException stopping) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("the store is stopping", stopping);
        }
    }

    @Override
    public HeadBucketResponse headBucket(HeadBucketRequest request) {
        look(false);
        return super.headBucket(request);
    }

    @Override
    public ListObjectsV2Response list(ListObjectsV2Request request) {
        look(false);
        return super.list(request);
    }

    @Override
    public HeadObjectResponse blobMetadata(HeadObjectRequest request) {
        look(false);
        return super.blobMetadata(request);
    }

    @Override
    public ResponseInputStream<GetObjectResponse> getBlob(GetObjectRequest request) {
        look(false);
        return super.getBlob(request);
    }

    @Override
    public PutObjectResponse putBlob(PutObjectRequest request, InputStream bytes) {
        look(true);
        return super.putBlob(request, bytes);
    }

    @Override
    public DeleteObjectResponse removeBlob(DeleteObjectRequest request) {
        look(false);
        return super.removeBlob(request);
    }

    @Override
    public MultipartUpload initiateMultipartUpload(CreateMultipartUploadRequest request) {
        look(true);
        return super.initiateMultipartUpload(request);
    }

    @Override
    public UploadPartResponse uploadMultipartPart(
            MultipartUpload upload, UploadPartRequest request, InputStream bytes) {
        look(true);
        return super.uploadMultipartPart(upload, request, bytes);
    }

    @Override
    public CompleteMultipartUploadResponse completeMultipartUpload(
            MultipartUpload upload, CompleteMultipartUploadRequest request) {
        look(true);
        return super.completeMultipartUpload(upload, request);
    }
}

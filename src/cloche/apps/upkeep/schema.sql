-- All migrations in one, for a database in which there is nothing yet. Written by `./run schema`; not to be edited.
CREATE TYPE public.procrastinate_job_event_type AS ENUM (
    'deferred',
    'started',
    'deferred_for_retry',
    'failed',
    'succeeded',
    'cancelled',
    'abort_requested',
    'aborted',
    'scheduled',
    'retried'
);
CREATE TYPE public.procrastinate_job_status AS ENUM (
    'todo',
    'doing',
    'succeeded',
    'failed',
    'cancelled',
    'aborting',
    'aborted'
);
CREATE TYPE public.procrastinate_job_to_defer_v1 AS (
	queue_name character varying,
	task_name character varying,
	priority integer,
	lock text,
	queueing_lock text,
	args jsonb,
	scheduled_at timestamp with time zone
);
CREATE FUNCTION public.procrastinate_cancel_job_v1(job_id bigint, abort boolean, delete_job boolean) RETURNS bigint
    LANGUAGE plpgsql
    AS $$
DECLARE
    _job_id bigint;
BEGIN
    IF delete_job THEN
        DELETE FROM procrastinate_jobs
        WHERE id = job_id AND status = 'todo'
        RETURNING id INTO _job_id;
    END IF;
    IF _job_id IS NULL THEN
        IF abort THEN
            UPDATE procrastinate_jobs
            SET abort_requested = true,
                status = CASE status
                    WHEN 'todo' THEN 'cancelled'::procrastinate_job_status ELSE status
                END
            WHERE id = job_id AND status IN ('todo', 'doing')
            RETURNING id INTO _job_id;
        ELSE
            UPDATE procrastinate_jobs
            SET status = 'cancelled'::procrastinate_job_status
            WHERE id = job_id AND status = 'todo'
            RETURNING id INTO _job_id;
        END IF;
    END IF;
    RETURN _job_id;
END;
$$;
CREATE FUNCTION public.procrastinate_defer_jobs_v1(jobs public.procrastinate_job_to_defer_v1[]) RETURNS bigint[]
    LANGUAGE plpgsql
    AS $$
DECLARE
    job_ids bigint[];
BEGIN
    WITH inserted_jobs AS (
        INSERT INTO procrastinate_jobs (queue_name, task_name, priority, lock, queueing_lock, args, scheduled_at)
        SELECT (job).queue_name,
               (job).task_name,
               (job).priority,
               (job).lock,
               (job).queueing_lock,
               (job).args,
               (job).scheduled_at
        FROM unnest(jobs) AS job
        RETURNING id
    )
    SELECT array_agg(id) FROM inserted_jobs INTO job_ids;
    RETURN job_ids;
END;
$$;
CREATE FUNCTION public.procrastinate_defer_periodic_job_v2(_queue_name character varying, _lock character varying, _queueing_lock character varying, _task_name character varying, _priority integer, _periodic_id character varying, _defer_timestamp bigint, _args jsonb) RETURNS bigint
    LANGUAGE plpgsql
    AS $$
DECLARE
	_job_id bigint;
	_defer_id bigint;
BEGIN
    INSERT
        INTO procrastinate_periodic_defers (task_name, periodic_id, defer_timestamp)
        VALUES (_task_name, _periodic_id, _defer_timestamp)
        ON CONFLICT DO NOTHING
        RETURNING id into _defer_id;
    IF _defer_id IS NULL THEN
        RETURN NULL;
    END IF;
    UPDATE procrastinate_periodic_defers
        SET job_id = (
            SELECT COALESCE((
                SELECT unnest(procrastinate_defer_jobs_v1(
                    ARRAY[
                        ROW(
                            _queue_name,
                            _task_name,
                            _priority,
                            _lock,
                            _queueing_lock,
                            _args,
                            NULL::timestamptz
                        )
                    ]::procrastinate_job_to_defer_v1[]
                ))
            ), NULL)
        )
        WHERE id = _defer_id
        RETURNING job_id INTO _job_id;
    DELETE
        FROM procrastinate_periodic_defers
        USING (
            SELECT id
            FROM procrastinate_periodic_defers
            WHERE procrastinate_periodic_defers.task_name = _task_name
            AND procrastinate_periodic_defers.periodic_id = _periodic_id
            AND procrastinate_periodic_defers.defer_timestamp < _defer_timestamp
            ORDER BY id
            FOR UPDATE
        ) to_delete
        WHERE procrastinate_periodic_defers.id = to_delete.id;
    RETURN _job_id;
END;
$$;
SET default_tablespace = '';
SET default_table_access_method = heap;
CREATE TABLE public.procrastinate_jobs (
    id bigint NOT NULL,
    queue_name character varying(128) NOT NULL,
    task_name character varying(128) NOT NULL,
    lock text,
    args jsonb DEFAULT '{}'::jsonb NOT NULL,
    status public.procrastinate_job_status DEFAULT 'todo'::public.procrastinate_job_status NOT NULL,
    scheduled_at timestamp with time zone,
    attempts integer DEFAULT 0 NOT NULL,
    queueing_lock text,
    priority integer DEFAULT 0 NOT NULL,
    abort_requested boolean DEFAULT false NOT NULL,
    worker_id bigint,
    CONSTRAINT check_not_todo_abort_requested CHECK ((NOT ((status = 'todo'::public.procrastinate_job_status) AND (abort_requested = true))))
);
CREATE FUNCTION public.procrastinate_fetch_job_v2(target_queue_names character varying[], p_worker_id bigint) RETURNS public.procrastinate_jobs
    LANGUAGE plpgsql
    AS $$
DECLARE
	found_jobs procrastinate_jobs;
BEGIN
    WITH candidate AS (
        SELECT jobs.*
            FROM procrastinate_jobs AS jobs
            WHERE
                -- reject the job if its lock has earlier or higher priority jobs
                NOT EXISTS (
                    SELECT 1
                        FROM procrastinate_jobs AS other_jobs
                        WHERE
                            jobs.lock IS NOT NULL
                            AND other_jobs.lock = jobs.lock
                            AND (
                                -- job with same lock is already running
                                other_jobs.status = 'doing'
                                OR
                                -- job with same lock is waiting and has higher priority (or same priority but was queued first)
                                (
                                    other_jobs.status = 'todo'
                                    AND (
                                        other_jobs.priority > jobs.priority
                                        OR (
                                        other_jobs.priority = jobs.priority
                                        AND other_jobs.id < jobs.id
                                        )
                                    )
                                )
                            )
                )
                AND jobs.status = 'todo'
                AND (target_queue_names IS NULL OR jobs.queue_name = ANY( target_queue_names ))
                AND (jobs.scheduled_at IS NULL OR jobs.scheduled_at <= now())
            ORDER BY jobs.priority DESC, jobs.id ASC LIMIT 1
            FOR UPDATE OF jobs SKIP LOCKED
    )
    UPDATE procrastinate_jobs
        SET status = 'doing', worker_id = p_worker_id
        FROM candidate
        WHERE procrastinate_jobs.id = candidate.id
        RETURNING procrastinate_jobs.* INTO found_jobs;
 RETURN found_jobs;
END;
$$;
CREATE FUNCTION public.procrastinate_finish_job_v1(job_id bigint, end_status public.procrastinate_job_status, delete_job boolean) RETURNS void
    LANGUAGE plpgsql
    AS $$
DECLARE
    _job_id bigint;
BEGIN
    IF end_status NOT IN ('succeeded', 'failed', 'aborted') THEN
        RAISE 'End status should be either "succeeded", "failed" or "aborted" (job id: %)', job_id;
    END IF;
    IF delete_job THEN
        DELETE FROM procrastinate_jobs
        WHERE id = job_id AND status IN ('todo', 'doing')
        RETURNING id INTO _job_id;
    ELSE
        UPDATE procrastinate_jobs
        SET status = end_status,
            abort_requested = false,
            attempts = CASE status
                WHEN 'doing' THEN attempts + 1 ELSE attempts
            END
        WHERE id = job_id AND status IN ('todo', 'doing')
        RETURNING id INTO _job_id;
    END IF;
    IF _job_id IS NULL THEN
        RAISE 'Job was not found or not in "doing" or "todo" status (job id: %)', job_id;
    END IF;
END;
$$;
CREATE FUNCTION public.procrastinate_notify_queue_abort_job_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
DECLARE
    payload TEXT;
BEGIN
    SELECT json_build_object('type', 'abort_job_requested', 'job_id', NEW.id)::text INTO payload;
	PERFORM pg_notify('procrastinate_queue_v1#' || NEW.queue_name, payload);
	PERFORM pg_notify('procrastinate_any_queue_v1', payload);
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_notify_queue_job_inserted_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
DECLARE
    payload TEXT;
BEGIN
    SELECT json_build_object('type', 'job_inserted', 'job_id', NEW.id)::text INTO payload;
	PERFORM pg_notify('procrastinate_queue_v1#' || NEW.queue_name, payload);
	PERFORM pg_notify('procrastinate_any_queue_v1', payload);
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_prune_stalled_workers_v1(seconds_since_heartbeat double precision) RETURNS TABLE(worker_id bigint)
    LANGUAGE plpgsql
    AS $$
BEGIN
    RETURN QUERY
    DELETE FROM procrastinate_workers
    WHERE last_heartbeat < NOW() - (seconds_since_heartbeat || 'SECOND')::INTERVAL
    RETURNING procrastinate_workers.id;
END;
$$;
CREATE FUNCTION public.procrastinate_register_worker_v1() RETURNS TABLE(worker_id bigint)
    LANGUAGE plpgsql
    AS $$
BEGIN
    RETURN QUERY
    INSERT INTO procrastinate_workers DEFAULT VALUES
    RETURNING procrastinate_workers.id;
END;
$$;
CREATE FUNCTION public.procrastinate_retry_job_v1(job_id bigint, retry_at timestamp with time zone, new_priority integer, new_queue_name character varying, new_lock character varying) RETURNS void
    LANGUAGE plpgsql
    AS $$
DECLARE
    _job_id bigint;
    _abort_requested boolean;
BEGIN
    SELECT abort_requested FROM procrastinate_jobs
    WHERE id = job_id AND status = 'doing'
    FOR UPDATE
    INTO _abort_requested;
    IF _abort_requested THEN
        UPDATE procrastinate_jobs
        SET status = 'failed'::procrastinate_job_status
        WHERE id = job_id AND status = 'doing'
        RETURNING id INTO _job_id;
    ELSE
        UPDATE procrastinate_jobs
        SET status = 'todo'::procrastinate_job_status,
            attempts = attempts + 1,
            scheduled_at = retry_at,
            priority = COALESCE(new_priority, priority),
            queue_name = COALESCE(new_queue_name, queue_name),
            lock = COALESCE(new_lock, lock)
        WHERE id = job_id AND status = 'doing'
        RETURNING id INTO _job_id;
    END IF;
    IF _job_id IS NULL THEN
        RAISE 'Job was not found or not in "doing" status (job id: %)', job_id;
    END IF;
END;
$$;
CREATE FUNCTION public.procrastinate_retry_job_v2(job_id bigint, retry_at timestamp with time zone, new_priority integer, new_queue_name character varying, new_lock character varying) RETURNS void
    LANGUAGE plpgsql
    AS $$
DECLARE
    _job_id bigint;
    _abort_requested boolean;
    _current_status procrastinate_job_status;
BEGIN
    SELECT status, abort_requested FROM procrastinate_jobs
    WHERE id = job_id AND status IN ('doing', 'failed')
    FOR UPDATE
    INTO _current_status, _abort_requested;
    IF _current_status = 'doing' AND _abort_requested THEN
        UPDATE procrastinate_jobs
        SET status = 'failed'::procrastinate_job_status
        WHERE id = job_id AND status = 'doing'
        RETURNING id INTO _job_id;
    ELSE
        UPDATE procrastinate_jobs
        SET status = 'todo'::procrastinate_job_status,
            attempts = attempts + 1,
            scheduled_at = retry_at,
            priority = COALESCE(new_priority, priority),
            queue_name = COALESCE(new_queue_name, queue_name),
            lock = COALESCE(new_lock, lock)
        WHERE id = job_id AND status IN ('doing', 'failed')
        RETURNING id INTO _job_id;
    END IF;
    IF _job_id IS NULL THEN
        RAISE 'Job was not found or has an invalid status to retry (job id: %)', job_id;
    END IF;
END;
$$;
CREATE FUNCTION public.procrastinate_trigger_abort_requested_events_procedure_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    INSERT INTO procrastinate_events(job_id, type)
        VALUES (NEW.id, 'abort_requested'::procrastinate_job_event_type);
    RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_trigger_function_scheduled_events_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    INSERT INTO procrastinate_events(job_id, type, at)
        VALUES (NEW.id, 'scheduled'::procrastinate_job_event_type, NEW.scheduled_at);
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_trigger_function_status_events_insert_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    INSERT INTO procrastinate_events(job_id, type)
        VALUES (NEW.id, 'deferred'::procrastinate_job_event_type);
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_trigger_function_status_events_update_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    WITH t AS (
        SELECT CASE
            WHEN OLD.status = 'todo'::procrastinate_job_status
                AND NEW.status = 'doing'::procrastinate_job_status
                THEN 'started'::procrastinate_job_event_type
            WHEN OLD.status = 'doing'::procrastinate_job_status
                AND NEW.status = 'todo'::procrastinate_job_status
                THEN 'deferred_for_retry'::procrastinate_job_event_type
            WHEN OLD.status = 'doing'::procrastinate_job_status
                AND NEW.status = 'failed'::procrastinate_job_status
                THEN 'failed'::procrastinate_job_event_type
            WHEN OLD.status = 'doing'::procrastinate_job_status
                AND NEW.status = 'succeeded'::procrastinate_job_status
                THEN 'succeeded'::procrastinate_job_event_type
            WHEN OLD.status = 'todo'::procrastinate_job_status
                AND (
                    NEW.status = 'cancelled'::procrastinate_job_status
                    OR NEW.status = 'failed'::procrastinate_job_status
                    OR NEW.status = 'succeeded'::procrastinate_job_status
                )
                THEN 'cancelled'::procrastinate_job_event_type
            WHEN OLD.status = 'doing'::procrastinate_job_status
                AND NEW.status = 'aborted'::procrastinate_job_status
                THEN 'aborted'::procrastinate_job_event_type
            WHEN OLD.status = 'failed'::procrastinate_job_status
                AND NEW.status = 'todo'::procrastinate_job_status
                THEN 'retried'::procrastinate_job_event_type
            ELSE NULL
        END as event_type
    )
    INSERT INTO procrastinate_events(job_id, type)
        SELECT NEW.id, t.event_type
        FROM t
        WHERE t.event_type IS NOT NULL;
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_unlink_periodic_defers_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    UPDATE procrastinate_periodic_defers
    SET job_id = NULL
    WHERE job_id = OLD.id;
    RETURN OLD;
END;
$$;
CREATE FUNCTION public.procrastinate_unregister_worker_v1(worker_id bigint) RETURNS void
    LANGUAGE plpgsql
    AS $$
BEGIN
    DELETE FROM procrastinate_workers
    WHERE id = worker_id;
END;
$$;
CREATE FUNCTION public.procrastinate_update_heartbeat_v1(worker_id bigint) RETURNS void
    LANGUAGE plpgsql
    AS $$
BEGIN
    UPDATE procrastinate_workers
    SET last_heartbeat = NOW()
    WHERE id = worker_id;
END;
$$;
CREATE TABLE public.account_emailaddress (
    id integer NOT NULL,
    email character varying(254) NOT NULL,
    verified boolean NOT NULL,
    "primary" boolean NOT NULL,
    user_id bigint NOT NULL
);
ALTER TABLE public.account_emailaddress ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.account_emailaddress_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.account_emailconfirmation (
    id integer NOT NULL,
    created timestamp with time zone NOT NULL,
    sent timestamp with time zone,
    key character varying(64) NOT NULL,
    email_address_id integer NOT NULL
);
ALTER TABLE public.account_emailconfirmation ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.account_emailconfirmation_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.auth_group (
    id integer NOT NULL,
    name character varying(150) NOT NULL
);
ALTER TABLE public.auth_group ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.auth_group_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.auth_group_permissions (
    id bigint NOT NULL,
    group_id integer NOT NULL,
    permission_id integer NOT NULL
);
ALTER TABLE public.auth_group_permissions ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.auth_group_permissions_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.auth_permission (
    id integer NOT NULL,
    name character varying(255) NOT NULL,
    content_type_id integer NOT NULL,
    codename character varying(100) NOT NULL
);
ALTER TABLE public.auth_permission ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.auth_permission_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.axes_accessattempt (
    id integer NOT NULL,
    user_agent character varying(255) NOT NULL,
    ip_address inet,
    username character varying(255),
    http_accept character varying(1025) NOT NULL,
    path_info character varying(255) NOT NULL,
    attempt_time timestamp with time zone NOT NULL,
    get_data text NOT NULL,
    post_data text NOT NULL,
    failures_since_start integer NOT NULL,
    CONSTRAINT axes_accessattempt_failures_since_start_check CHECK ((failures_since_start >= 0))
);
ALTER TABLE public.axes_accessattempt ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.axes_accessattempt_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.axes_accessattemptexpiration (
    access_attempt_id integer NOT NULL,
    expires_at timestamp with time zone NOT NULL
);
CREATE TABLE public.axes_accessfailurelog (
    id integer NOT NULL,
    user_agent character varying(255) NOT NULL,
    ip_address inet,
    username character varying(255),
    http_accept character varying(1025) NOT NULL,
    path_info character varying(255) NOT NULL,
    attempt_time timestamp with time zone NOT NULL,
    locked_out boolean NOT NULL
);
ALTER TABLE public.axes_accessfailurelog ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.axes_accessfailurelog_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.axes_accesslog (
    id integer NOT NULL,
    user_agent character varying(255) NOT NULL,
    ip_address inet,
    username character varying(255),
    http_accept character varying(1025) NOT NULL,
    path_info character varying(255) NOT NULL,
    attempt_time timestamp with time zone NOT NULL,
    logout_time timestamp with time zone,
    session_hash character varying(64) NOT NULL
);
ALTER TABLE public.axes_accesslog ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.axes_accesslog_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.covers_bedanswer (
    id bigint NOT NULL,
    question character varying(200) NOT NULL,
    answer jsonb,
    cover_id bigint NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.covers_bedanswer ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.covers_bedanswer_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.covers_covertrial (
    id bigint NOT NULL,
    depth_m double precision NOT NULL,
    begun_on date NOT NULL,
    ended_on date,
    alike jsonb NOT NULL,
    bare_id bigint NOT NULL,
    covered_id bigint NOT NULL
);
ALTER TABLE public.covers_covertrial ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.covers_covertrial_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.covers_historicalcovertrial (
    id bigint NOT NULL,
    depth_m double precision NOT NULL,
    begun_on date NOT NULL,
    ended_on date,
    alike jsonb NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    bare_id bigint,
    covered_id bigint,
    history_user_id bigint
);
ALTER TABLE public.covers_historicalcovertrial ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.covers_historicalcovertrial_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.covers_seasonanswer (
    id bigint NOT NULL,
    cover character varying(40) NOT NULL,
    question character varying(200) NOT NULL,
    answer jsonb NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.covers_seasonanswer ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.covers_seasonanswer_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.django_content_type (
    id integer NOT NULL,
    app_label character varying(100) NOT NULL,
    model character varying(100) NOT NULL
);
ALTER TABLE public.django_content_type ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.django_content_type_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.django_migrations (
    id bigint NOT NULL,
    app character varying(255) NOT NULL,
    name character varying(255) NOT NULL,
    applied timestamp with time zone NOT NULL
);
ALTER TABLE public.django_migrations ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.django_migrations_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.django_session (
    session_key character varying(40) NOT NULL,
    session_data text NOT NULL,
    expire_date timestamp with time zone NOT NULL
);
CREATE TABLE public.forecasts_cropoutlook (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    method character varying(12) NOT NULL,
    better boolean NOT NULL,
    windows jsonb NOT NULL,
    sow_now boolean NOT NULL,
    main_limit character varying(20) NOT NULL,
    half_d double precision,
    share double precision NOT NULL,
    fails_now double precision NOT NULL,
    hopeless boolean NOT NULL,
    ribbon jsonb NOT NULL,
    days jsonb NOT NULL,
    members text NOT NULL,
    sowing_rules jsonb NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.forecasts_cropoutlook ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.forecasts_cropoutlook_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.forecasts_forecast (
    id bigint NOT NULL,
    made_at timestamp with time zone NOT NULL,
    day date NOT NULL,
    input_revision bigint NOT NULL,
    model_version character varying(40) NOT NULL,
    ground jsonb NOT NULL,
    frosts jsonb NOT NULL,
    cover_evidence jsonb,
    watch jsonb,
    place_id bigint NOT NULL,
    nights jsonb,
    stored uuid,
    CONSTRAINT forecasts_forecast_input_revision_check CHECK ((input_revision >= 0))
);
ALTER TABLE public.forecasts_forecast ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.forecasts_forecast_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.forecasts_modelsnapshot (
    id bigint NOT NULL,
    packed bytea NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.forecasts_modelsnapshot ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.forecasts_modelsnapshot_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.forecasts_soilyear (
    id bigint NOT NULL,
    year smallint NOT NULL,
    depth_m double precision NOT NULL,
    mean_c double precision[] NOT NULL,
    measured smallint NOT NULL,
    place_id bigint NOT NULL,
    kwh double precision[],
    CONSTRAINT forecasts_soilyear_measured_check CHECK ((measured >= 0)),
    CONSTRAINT forecasts_soilyear_year_check CHECK ((year >= 0))
);
ALTER TABLE public.forecasts_soilyear ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.forecasts_soilyear_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.forecasts_windowchange (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    method character varying(12) NOT NULL,
    at timestamp with time zone NOT NULL,
    before date,
    after date,
    place_id bigint NOT NULL
);
ALTER TABLE public.forecasts_windowchange ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.forecasts_windowchange_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.gardens_garden (
    id bigint NOT NULL,
    name character varying(80) NOT NULL,
    latitude_deg double precision NOT NULL,
    longitude_deg double precision NOT NULL,
    elevation_m double precision NOT NULL,
    timezone_name character varying(60) NOT NULL,
    normal_lows_c double precision[],
    normal_highs_c double precision[],
    crops character varying(40)[] NOT NULL,
    sowing_rule character varying(12) NOT NULL,
    watered boolean NOT NULL,
    uncover_rule character varying(12) NOT NULL,
    away_from_h smallint,
    away_to_h smallint,
    zone character varying(4) NOT NULL,
    own_crops jsonb NOT NULL,
    names character varying(10) NOT NULL,
    created_at timestamp with time zone NOT NULL,
    bring_in_c double precision NOT NULL,
    heat_off_rule character varying(6) NOT NULL,
    price_kwh double precision,
    CONSTRAINT gardens_garden_away_from_h_check CHECK ((away_from_h >= 0)),
    CONSTRAINT gardens_garden_away_to_h_check CHECK ((away_to_h >= 0))
);
ALTER TABLE public.gardens_garden ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.gardens_garden_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.gardens_invitation (
    id bigint NOT NULL,
    role character varying(10) NOT NULL,
    fingerprint character varying(64) NOT NULL,
    made_at timestamp with time zone NOT NULL,
    ends_at timestamp with time zone NOT NULL,
    used_at timestamp with time zone,
    garden_id bigint NOT NULL,
    made_by_id bigint NOT NULL,
    used_by_id bigint
);
ALTER TABLE public.gardens_invitation ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.gardens_invitation_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.gardens_membership (
    id bigint NOT NULL,
    role character varying(10) NOT NULL,
    garden_id bigint NOT NULL,
    user_id bigint NOT NULL
);
ALTER TABLE public.gardens_membership ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.gardens_membership_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.gardens_user (
    id bigint NOT NULL,
    password character varying(128) NOT NULL,
    last_login timestamp with time zone,
    is_superuser boolean NOT NULL,
    username character varying(150) NOT NULL,
    first_name character varying(150) NOT NULL,
    last_name character varying(150) NOT NULL,
    email character varying(254) NOT NULL,
    is_staff boolean NOT NULL,
    is_active boolean NOT NULL,
    date_joined timestamp with time zone NOT NULL,
    temperature_unit character varying(1) NOT NULL,
    length_unit character varying(2) NOT NULL,
    language character varying(10) NOT NULL
);
CREATE TABLE public.gardens_user_groups (
    id bigint NOT NULL,
    user_id bigint NOT NULL,
    group_id integer NOT NULL
);
ALTER TABLE public.gardens_user_groups ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.gardens_user_groups_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
ALTER TABLE public.gardens_user ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.gardens_user_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.gardens_user_user_permissions (
    id bigint NOT NULL,
    user_id bigint NOT NULL,
    permission_id integer NOT NULL
);
ALTER TABLE public.gardens_user_user_permissions ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.gardens_user_user_permissions_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.loggers_device (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    unit character varying(1) NOT NULL,
    fingerprint character varying(64) NOT NULL,
    made_at timestamp with time zone NOT NULL,
    revoked_at timestamp with time zone,
    heard_at timestamp with time zone,
    drift_s integer NOT NULL,
    garden_id bigint NOT NULL,
    made_by_id bigint
);
ALTER TABLE public.loggers_device ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.loggers_device_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.loggers_hour (
    hour timestamp with time zone NOT NULL,
    sum_c double precision NOT NULL,
    probe_id integer NOT NULL,
    low_c real NOT NULL,
    high_c real NOT NULL,
    number smallint NOT NULL,
    review character varying(10) DEFAULT ''::character varying NOT NULL
);
CREATE TABLE public.loggers_messagemapping (
    id bigint NOT NULL,
    topic character varying(200) NOT NULL,
    each character varying(120) NOT NULL,
    value character varying(120) NOT NULL,
    at character varying(120) NOT NULL,
    channel character varying(120) NOT NULL,
    unplaced jsonb NOT NULL,
    device_id bigint NOT NULL
);
ALTER TABLE public.loggers_messagemapping ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.loggers_messagemapping_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.loggers_probe (
    id bigint NOT NULL,
    channel character varying(40) NOT NULL,
    depth_m double precision NOT NULL,
    in_air boolean NOT NULL,
    since timestamp with time zone,
    until timestamp with time zone,
    last_at timestamp with time zone,
    last_c double precision,
    every_s integer,
    device_id bigint NOT NULL,
    place_id bigint,
    room_id bigint,
    CONSTRAINT a_probe_is_in_a_place_or_a_room CHECK ((((place_id IS NOT NULL) AND (room_id IS NULL)) OR (in_air AND (place_id IS NULL) AND (room_id IS NOT NULL)))),
    CONSTRAINT loggers_probe_every_s_check CHECK ((every_s >= 0))
);
ALTER TABLE public.loggers_probe ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.loggers_probe_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.loggers_reading (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
)
PARTITION BY RANGE (at);
CREATE TABLE public.loggers_reading_2015 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2016 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2017 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2018 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2019 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2020 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2021 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2022 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2023 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2024 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2025 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2026 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2027 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2028 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2029 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2030 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2031 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2032 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2033 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2034 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2035 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2036 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2037 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2038 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2039 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2040 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2041 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2042 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2043 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2044 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_2045 (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_reading_else (
    at timestamp with time zone NOT NULL,
    probe_id integer NOT NULL,
    temperature_c real NOT NULL,
    shift_s integer DEFAULT 0 NOT NULL,
    fault smallint DEFAULT 0 NOT NULL
);
CREATE TABLE public.loggers_refusedmessage (
    id bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    reason character varying(300) NOT NULL,
    sample character varying(400) NOT NULL,
    device_id bigint,
    garden_id bigint
);
ALTER TABLE public.loggers_refusedmessage ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.loggers_refusedmessage_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.mfa_authenticator (
    id bigint NOT NULL,
    type character varying(20) NOT NULL,
    data jsonb NOT NULL,
    user_id bigint NOT NULL,
    created_at timestamp with time zone NOT NULL,
    last_used_at timestamp with time zone
);
ALTER TABLE public.mfa_authenticator ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.mfa_authenticator_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_benchcheck (
    id bigint NOT NULL,
    item character varying(10) NOT NULL,
    "on" date NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.places_benchcheck ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_benchcheck_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_cover (
    id bigint NOT NULL,
    kind character varying(20) NOT NULL,
    name character varying(60) NOT NULL,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    spread_m double precision,
    purchase_year smallint,
    dirty boolean NOT NULL,
    price double precision,
    weight_kg double precision,
    removed_at timestamp with time zone,
    garden_id bigint NOT NULL,
    high_m double precision,
    low_m double precision,
    CONSTRAINT places_cover_purchase_year_check CHECK ((purchase_year >= 0))
);
ALTER TABLE public.places_cover ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_cover_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_coverdamage (
    id bigint NOT NULL,
    "on" date NOT NULL,
    what character varying(10) NOT NULL,
    cause character varying(10) NOT NULL,
    note character varying(200) NOT NULL,
    cover_id bigint NOT NULL
);
ALTER TABLE public.places_coverdamage ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_coverdamage_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_coverperiod (
    id bigint NOT NULL,
    cover character varying(20) NOT NULL,
    first date NOT NULL,
    last date,
    ends_capped boolean NOT NULL,
    opens character varying(10) NOT NULL,
    above_c double precision NOT NULL,
    from_h smallint NOT NULL,
    to_h smallint NOT NULL,
    opening double precision NOT NULL,
    blanket boolean NOT NULL,
    item_id bigint,
    place_id bigint NOT NULL,
    covered_m double precision,
    CONSTRAINT places_coverperiod_from_h_check CHECK ((from_h >= 0)),
    CONSTRAINT places_coverperiod_to_h_check CHECK ((to_h >= 0))
);
ALTER TABLE public.places_coverperiod ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_coverperiod_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_heatperiod (
    id bigint NOT NULL,
    source character varying(8) NOT NULL,
    first date NOT NULL,
    last date,
    watts double precision,
    cable_m double precision,
    cable_w_m double precision,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    lift_k double precision,
    control character varying(10) NOT NULL,
    spans jsonb NOT NULL,
    start_c double precision NOT NULL,
    stop_c double precision NOT NULL,
    probe character varying(8) NOT NULL,
    over_m double precision NOT NULL,
    under_m double precision NOT NULL,
    filling character varying(12) NOT NULL,
    filling_wet boolean NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.places_heatperiod ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_heatperiod_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_heattest (
    id bigint NOT NULL,
    "on" date NOT NULL,
    minutes integer,
    spots jsonb NOT NULL,
    place_id bigint NOT NULL,
    CONSTRAINT places_heattest_minutes_check CHECK ((minutes >= 0))
);
ALTER TABLE public.places_heattest ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_heattest_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalbenchcheck (
    id bigint NOT NULL,
    item character varying(10) NOT NULL,
    "on" date NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint
);
ALTER TABLE public.places_historicalbenchcheck ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalbenchcheck_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalcover (
    id bigint NOT NULL,
    kind character varying(20) NOT NULL,
    name character varying(60) NOT NULL,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    spread_m double precision,
    purchase_year smallint,
    dirty boolean NOT NULL,
    price double precision,
    weight_kg double precision,
    removed_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    garden_id bigint,
    history_user_id bigint,
    high_m double precision,
    low_m double precision,
    CONSTRAINT places_historicalcover_purchase_year_check CHECK ((purchase_year >= 0))
);
ALTER TABLE public.places_historicalcover ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalcover_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalcoverperiod (
    id bigint NOT NULL,
    cover character varying(20) NOT NULL,
    first date NOT NULL,
    last date,
    ends_capped boolean NOT NULL,
    opens character varying(10) NOT NULL,
    above_c double precision NOT NULL,
    from_h smallint NOT NULL,
    to_h smallint NOT NULL,
    opening double precision NOT NULL,
    blanket boolean NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    item_id bigint,
    place_id bigint,
    covered_m double precision,
    CONSTRAINT places_historicalcoverperiod_from_h_check CHECK ((from_h >= 0)),
    CONSTRAINT places_historicalcoverperiod_to_h_check CHECK ((to_h >= 0))
);
ALTER TABLE public.places_historicalcoverperiod ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalcoverperiod_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalheatperiod (
    id bigint NOT NULL,
    source character varying(8) NOT NULL,
    first date NOT NULL,
    last date,
    watts double precision,
    cable_m double precision,
    cable_w_m double precision,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    lift_k double precision,
    control character varying(10) NOT NULL,
    spans jsonb NOT NULL,
    start_c double precision NOT NULL,
    stop_c double precision NOT NULL,
    probe character varying(8) NOT NULL,
    over_m double precision NOT NULL,
    under_m double precision NOT NULL,
    filling character varying(12) NOT NULL,
    filling_wet boolean NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint
);
ALTER TABLE public.places_historicalheatperiod ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalheatperiod_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalheattest (
    id bigint NOT NULL,
    "on" date NOT NULL,
    minutes integer,
    spots jsonb NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint,
    CONSTRAINT places_historicalheattest_minutes_check CHECK ((minutes >= 0))
);
ALTER TABLE public.places_historicalheattest ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalheattest_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalhotbed (
    id bigint NOT NULL,
    material character varying(12) NOT NULL,
    depth_m double precision NOT NULL,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    moist character varying(8) NOT NULL,
    trodden character varying(8) NOT NULL,
    insulated boolean NOT NULL,
    soil_m double precision NOT NULL,
    filled_on date NOT NULL,
    topped_up_on date,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint,
    matted_until date
);
ALTER TABLE public.places_historicalhotbed ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalhotbed_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalhotbedfill (
    id bigint NOT NULL,
    "on" date NOT NULL,
    material character varying(12) NOT NULL,
    depth_m double precision NOT NULL,
    moist character varying(8) NOT NULL,
    trodden character varying(8) NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint
);
ALTER TABLE public.places_historicalhotbedfill ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalhotbedfill_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalhotbednote (
    id bigint NOT NULL,
    "on" date NOT NULL,
    core_c double precision,
    height_m double precision,
    note character varying(200) NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint
);
ALTER TABLE public.places_historicalhotbednote ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalhotbednote_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalhotbedtray (
    id bigint NOT NULL,
    first date NOT NULL,
    last date,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    hotbed_id bigint,
    place_id bigint
);
ALTER TABLE public.places_historicalhotbedtray ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalhotbedtray_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicallamp (
    id bigint NOT NULL,
    kind character varying(6) NOT NULL,
    first date NOT NULL,
    last date,
    watts double precision NOT NULL,
    ppfd double precision,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    away_m double precision NOT NULL,
    spans jsonb NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint
);
ALTER TABLE public.places_historicallamp ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicallamp_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicaloperation (
    id bigint NOT NULL,
    work character varying(20) NOT NULL,
    at timestamp with time zone NOT NULL,
    amount double precision NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint
);
ALTER TABLE public.places_historicaloperation ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicaloperation_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalplace (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    kind character varying(10) NOT NULL,
    seed_depth_m double precision NOT NULL,
    walking_order integer NOT NULL,
    texture character varying(10) NOT NULL,
    slope_deg double precision NOT NULL,
    aspect_deg double precision NOT NULL,
    shaded_from_h smallint,
    shaded_to_h smallint,
    width_m double precision NOT NULL,
    within character varying(20) NOT NULL,
    removed_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    garden_id bigint,
    history_user_id bigint,
    window_aspect_deg double precision,
    window_away_m double precision NOT NULL,
    window_shade double precision NOT NULL,
    room_id bigint,
    CONSTRAINT places_historicalplace_shaded_from_h_check CHECK ((shaded_from_h >= 0)),
    CONSTRAINT places_historicalplace_shaded_to_h_check CHECK ((shaded_to_h >= 0)),
    CONSTRAINT places_historicalplace_walking_order_check CHECK ((walking_order >= 0))
);
ALTER TABLE public.places_historicalplace ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalplace_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalroom (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    kind character varying(10) NOT NULL,
    night_c double precision,
    day_c double precision,
    removed_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    garden_id bigint,
    history_user_id bigint
);
ALTER TABLE public.places_historicalroom ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalroom_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicalroomair (
    id bigint NOT NULL,
    what character varying(10) NOT NULL,
    at timestamp with time zone NOT NULL,
    since timestamp with time zone,
    temperature_c double precision NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    room_id bigint
);
ALTER TABLE public.places_historicalroomair ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicalroomair_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_historicaltubertray (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    variety character varying(60) NOT NULL,
    tubers integer NOT NULL,
    set_out_on date NOT NULL,
    plant_on date NOT NULL,
    planted_on date,
    removed_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint,
    CONSTRAINT places_historicaltubertray_tubers_check CHECK ((tubers >= 0))
);
ALTER TABLE public.places_historicaltubertray ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_historicaltubertray_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_hotbed (
    id bigint NOT NULL,
    material character varying(12) NOT NULL,
    depth_m double precision NOT NULL,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    moist character varying(8) NOT NULL,
    trodden character varying(8) NOT NULL,
    insulated boolean NOT NULL,
    soil_m double precision NOT NULL,
    filled_on date NOT NULL,
    topped_up_on date,
    place_id bigint NOT NULL,
    matted_until date
);
ALTER TABLE public.places_hotbed ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_hotbed_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_hotbedfill (
    id bigint NOT NULL,
    "on" date NOT NULL,
    material character varying(12) NOT NULL,
    depth_m double precision NOT NULL,
    moist character varying(8) NOT NULL,
    trodden character varying(8) NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.places_hotbedfill ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_hotbedfill_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_hotbednote (
    id bigint NOT NULL,
    "on" date NOT NULL,
    core_c double precision,
    height_m double precision,
    note character varying(200) NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.places_hotbednote ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_hotbednote_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_hotbedtray (
    id bigint NOT NULL,
    first date NOT NULL,
    last date,
    hotbed_id bigint NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.places_hotbedtray ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_hotbedtray_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_lamp (
    id bigint NOT NULL,
    kind character varying(6) NOT NULL,
    first date NOT NULL,
    last date,
    watts double precision NOT NULL,
    ppfd double precision,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    away_m double precision NOT NULL,
    spans jsonb NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.places_lamp ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_lamp_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_operation (
    id bigint NOT NULL,
    work character varying(20) NOT NULL,
    at timestamp with time zone NOT NULL,
    amount double precision NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.places_operation ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_operation_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_place (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    kind character varying(10) NOT NULL,
    seed_depth_m double precision NOT NULL,
    walking_order integer NOT NULL,
    texture character varying(10) NOT NULL,
    slope_deg double precision NOT NULL,
    aspect_deg double precision NOT NULL,
    shaded_from_h smallint,
    shaded_to_h smallint,
    width_m double precision NOT NULL,
    within character varying(20) NOT NULL,
    input_revision bigint NOT NULL,
    removed_at timestamp with time zone,
    garden_id bigint NOT NULL,
    window_aspect_deg double precision,
    window_away_m double precision NOT NULL,
    window_shade double precision NOT NULL,
    room_id bigint,
    CONSTRAINT places_place_input_revision_check CHECK ((input_revision >= 0)),
    CONSTRAINT places_place_shaded_from_h_check CHECK ((shaded_from_h >= 0)),
    CONSTRAINT places_place_shaded_to_h_check CHECK ((shaded_to_h >= 0)),
    CONSTRAINT places_place_walking_order_check CHECK ((walking_order >= 0))
);
ALTER TABLE public.places_place ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_place_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_room (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    kind character varying(10) NOT NULL,
    night_c double precision,
    day_c double precision,
    removed_at timestamp with time zone,
    garden_id bigint NOT NULL
);
ALTER TABLE public.places_room ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_room_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_roomair (
    id bigint NOT NULL,
    what character varying(10) NOT NULL,
    at timestamp with time zone NOT NULL,
    since timestamp with time zone,
    temperature_c double precision NOT NULL,
    room_id bigint NOT NULL
);
ALTER TABLE public.places_roomair ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_roomair_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.places_tubertray (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    variety character varying(60) NOT NULL,
    tubers integer NOT NULL,
    set_out_on date NOT NULL,
    plant_on date NOT NULL,
    planted_on date,
    removed_at timestamp with time zone,
    place_id bigint NOT NULL,
    CONSTRAINT places_tubertray_tubers_check CHECK ((tubers >= 0))
);
ALTER TABLE public.places_tubertray ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.places_tubertray_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.plants_bedshape (
    id bigint NOT NULL,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    square_m double precision NOT NULL,
    runs_deg double precision NOT NULL,
    place_id bigint NOT NULL
);
ALTER TABLE public.plants_bedshape ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.plants_bedshape_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.plants_historicalbedshape (
    id bigint NOT NULL,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    square_m double precision NOT NULL,
    runs_deg double precision NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    place_id bigint
);
ALTER TABLE public.plants_historicalbedshape ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.plants_historicalbedshape_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.plants_historicalplantevent (
    id bigint NOT NULL,
    kind character varying(10) NOT NULL,
    "on" date NOT NULL,
    number integer,
    weight_kg double precision,
    height_m double precision,
    cause character varying(10) NOT NULL,
    lowest_c double precision,
    note character varying(200) NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    planting_id bigint,
    CONSTRAINT plants_historicalplantevent_number_check CHECK ((number >= 0))
);
ALTER TABLE public.plants_historicalplantevent ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.plants_historicalplantevent_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.plants_historicalplanting (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    origin character varying(12) NOT NULL,
    planned_on date,
    planted_on date,
    ended_on date,
    number integer,
    height_m double precision,
    x_m double precision,
    y_m double precision,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    layout character varying(10) NOT NULL,
    plant_m double precision,
    row_m double precision,
    per_station smallint,
    thinning character varying(12) NOT NULL,
    note character varying(200) NOT NULL,
    removed_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    entered_by_id bigint,
    history_user_id bigint,
    packet_id bigint,
    place_id bigint,
    sowing_id bigint,
    CONSTRAINT plants_historicalplanting_number_check CHECK ((number >= 0)),
    CONSTRAINT plants_historicalplanting_per_station_check CHECK ((per_station >= 0))
);
ALTER TABLE public.plants_historicalplanting ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.plants_historicalplanting_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.plants_plantevent (
    id bigint NOT NULL,
    kind character varying(10) NOT NULL,
    "on" date NOT NULL,
    number integer,
    weight_kg double precision,
    height_m double precision,
    cause character varying(10) NOT NULL,
    lowest_c double precision,
    note character varying(200) NOT NULL,
    planting_id bigint NOT NULL,
    CONSTRAINT plants_plantevent_number_check CHECK ((number >= 0))
);
ALTER TABLE public.plants_plantevent ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.plants_plantevent_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.plants_planting (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    origin character varying(12) NOT NULL,
    planned_on date,
    planted_on date,
    ended_on date,
    number integer,
    height_m double precision,
    x_m double precision,
    y_m double precision,
    length_m double precision NOT NULL,
    width_m double precision NOT NULL,
    layout character varying(10) NOT NULL,
    plant_m double precision,
    row_m double precision,
    per_station smallint,
    thinning character varying(12) NOT NULL,
    note character varying(200) NOT NULL,
    removed_at timestamp with time zone,
    entered_by_id bigint,
    packet_id bigint,
    place_id bigint NOT NULL,
    sowing_id bigint,
    CONSTRAINT plants_planting_number_check CHECK ((number >= 0)),
    CONSTRAINT plants_planting_per_station_check CHECK ((per_station >= 0))
);
ALTER TABLE public.plants_planting ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.plants_planting_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.plants_savedseed (
    id bigint NOT NULL,
    packet_id bigint NOT NULL,
    planting_id bigint NOT NULL
);
ALTER TABLE public.plants_savedseed ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.plants_savedseed_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.procrastinate_events (
    id bigint NOT NULL,
    job_id bigint NOT NULL,
    type public.procrastinate_job_event_type,
    at timestamp with time zone DEFAULT now()
);
CREATE SEQUENCE public.procrastinate_events_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.procrastinate_events_id_seq OWNED BY public.procrastinate_events.id;
CREATE SEQUENCE public.procrastinate_jobs_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.procrastinate_jobs_id_seq OWNED BY public.procrastinate_jobs.id;
CREATE TABLE public.procrastinate_periodic_defers (
    id bigint NOT NULL,
    task_name character varying(128) NOT NULL,
    defer_timestamp bigint,
    job_id bigint,
    periodic_id character varying(128) DEFAULT ''::character varying NOT NULL
);
CREATE SEQUENCE public.procrastinate_periodic_defers_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.procrastinate_periodic_defers_id_seq OWNED BY public.procrastinate_periodic_defers.id;
CREATE TABLE public.procrastinate_workers (
    id bigint NOT NULL,
    last_heartbeat timestamp with time zone DEFAULT now() NOT NULL
);
ALTER TABLE public.procrastinate_workers ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.procrastinate_workers_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.readings_filesource (
    id bigint NOT NULL,
    kind character varying(10) NOT NULL,
    signature character varying(64) NOT NULL,
    mapping jsonb NOT NULL,
    garden_id bigint NOT NULL
);
ALTER TABLE public.readings_filesource ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.readings_filesource_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.readings_historicalreading (
    id bigint NOT NULL,
    taken_at timestamp with time zone NOT NULL,
    depth_m double precision NOT NULL,
    temperature_c double precision NOT NULL,
    note character varying(200) NOT NULL,
    source character varying(10) NOT NULL,
    review character varying(10) NOT NULL,
    removed_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    entered_by_id bigint,
    history_user_id bigint,
    place_id bigint,
    visit_id bigint
);
ALTER TABLE public.readings_historicalreading ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.readings_historicalreading_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.readings_historicalvisit (
    id bigint NOT NULL,
    key uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    air_c double precision,
    air_low_c double precision,
    air_high_c double precision,
    moisture character varying(5) NOT NULL,
    snow_m double precision,
    note character varying(200) NOT NULL,
    losses character varying(200) NOT NULL,
    removed_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    made_by_id bigint,
    place_id bigint
);
ALTER TABLE public.readings_historicalvisit ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.readings_historicalvisit_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.readings_incomingfile (
    id bigint NOT NULL,
    kind character varying(10) NOT NULL,
    name character varying(200) NOT NULL,
    text text NOT NULL,
    mapping jsonb NOT NULL,
    familiar boolean NOT NULL,
    state character varying(8) NOT NULL,
    done integer NOT NULL,
    total integer NOT NULL,
    created_at timestamp with time zone NOT NULL,
    garden_id bigint NOT NULL,
    user_id bigint NOT NULL,
    CONSTRAINT readings_incomingfile_done_check CHECK ((done >= 0)),
    CONSTRAINT readings_incomingfile_total_check CHECK ((total >= 0))
);
ALTER TABLE public.readings_incomingfile ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.readings_incomingfile_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.readings_reading (
    id bigint NOT NULL,
    taken_at timestamp with time zone NOT NULL,
    depth_m double precision NOT NULL,
    temperature_c double precision NOT NULL,
    note character varying(200) NOT NULL,
    source character varying(10) NOT NULL,
    review character varying(10) NOT NULL,
    removed_at timestamp with time zone,
    entered_by_id bigint,
    place_id bigint NOT NULL,
    visit_id bigint
);
ALTER TABLE public.readings_reading ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.readings_reading_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.readings_visit (
    id bigint NOT NULL,
    key uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    air_c double precision,
    air_low_c double precision,
    air_high_c double precision,
    moisture character varying(5) NOT NULL,
    snow_m double precision,
    note character varying(200) NOT NULL,
    losses character varying(200) NOT NULL,
    photo bytea,
    removed_at timestamp with time zone,
    made_by_id bigint,
    place_id bigint NOT NULL
);
ALTER TABLE public.readings_visit ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.readings_visit_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.readings_visit_operations (
    id bigint NOT NULL,
    visit_id bigint NOT NULL,
    operation_id bigint NOT NULL
);
ALTER TABLE public.readings_visit_operations ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.readings_visit_operations_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.readings_watchedfile (
    id bigint NOT NULL,
    name character varying(200) NOT NULL,
    at timestamp with time zone NOT NULL,
    kind character varying(10) NOT NULL,
    taken boolean NOT NULL,
    added integer NOT NULL,
    left_out integer NOT NULL,
    reason character varying(300) NOT NULL,
    garden_id bigint NOT NULL,
    CONSTRAINT readings_watchedfile_added_check CHECK ((added >= 0)),
    CONSTRAINT readings_watchedfile_left_out_check CHECK ((left_out >= 0))
);
ALTER TABLE public.readings_watchedfile ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.readings_watchedfile_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.records_archivepart (
    id bigint NOT NULL,
    number integer NOT NULL,
    data bytea NOT NULL,
    archive_id bigint NOT NULL,
    CONSTRAINT records_archivepart_number_check CHECK ((number >= 0))
);
ALTER TABLE public.records_archivepart ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.records_archivepart_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.records_incomingarchive (
    id bigint NOT NULL,
    name character varying(200) NOT NULL,
    size bigint NOT NULL,
    state character varying(8) NOT NULL,
    text character varying(300) NOT NULL,
    done bigint NOT NULL,
    total bigint NOT NULL,
    created_at timestamp with time zone NOT NULL,
    garden_id bigint,
    user_id bigint NOT NULL,
    CONSTRAINT records_incomingarchive_done_check CHECK ((done >= 0)),
    CONSTRAINT records_incomingarchive_size_check CHECK ((size >= 0)),
    CONSTRAINT records_incomingarchive_total_check CHECK ((total >= 0))
);
ALTER TABLE public.records_incomingarchive ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.records_incomingarchive_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.seed_cropchoice (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    sowing_rule character varying(12) NOT NULL,
    method character varying(12) NOT NULL,
    garden_id bigint NOT NULL
);
ALTER TABLE public.seed_cropchoice ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.seed_cropchoice_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.seed_packet (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    variety character varying(60) NOT NULL,
    packed_year smallint,
    tested_of integer,
    tested_up integer,
    price double precision,
    "values" jsonb NOT NULL,
    in_use boolean NOT NULL,
    removed_at timestamp with time zone,
    garden_id bigint NOT NULL,
    CONSTRAINT seed_packet_packed_year_check CHECK ((packed_year >= 0)),
    CONSTRAINT seed_packet_tested_of_check CHECK ((tested_of >= 0)),
    CONSTRAINT seed_packet_tested_up_check CHECK ((tested_up >= 0))
);
ALTER TABLE public.seed_packet ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.seed_packet_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sowings_count (
    id bigint NOT NULL,
    "on" date NOT NULL,
    up integer NOT NULL,
    sowing_id bigint NOT NULL,
    CONSTRAINT sowings_count_up_check CHECK ((up >= 0))
);
ALTER TABLE public.sowings_count ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.sowings_count_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sowings_historicalcount (
    id bigint NOT NULL,
    "on" date NOT NULL,
    up integer NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    sowing_id bigint,
    CONSTRAINT sowings_historicalcount_up_check CHECK ((up >= 0))
);
ALTER TABLE public.sowings_historicalcount ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.sowings_historicalcount_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sowings_historicalintention (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    sow_on date NOT NULL,
    dropped_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    entered_by_id bigint,
    history_user_id bigint,
    place_id bigint,
    made_id bigint
);
ALTER TABLE public.sowings_historicalintention ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.sowings_historicalintention_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sowings_historicalsowing (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    sown_on date NOT NULL,
    seeds integer,
    depth_m double precision NOT NULL,
    finished boolean NOT NULL,
    removed_at timestamp with time zone,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    entered_by_id bigint,
    history_user_id bigint,
    packet_id bigint,
    place_id bigint,
    cell_m double precision,
    sown_in_id bigint,
    heat_off_rule character varying(6) NOT NULL,
    CONSTRAINT sowings_historicalsowing_seeds_check CHECK ((seeds >= 0))
);
ALTER TABLE public.sowings_historicalsowing ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.sowings_historicalsowing_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sowings_historicalstep (
    id bigint NOT NULL,
    kind character varying(12) NOT NULL,
    "on" date NOT NULL,
    cell_m double precision,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    left_id bigint,
    place_id bigint,
    sowing_id bigint,
    start_before_c double precision,
    start_c double precision
);
ALTER TABLE public.sowings_historicalstep ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.sowings_historicalstep_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sowings_intention (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    sow_on date NOT NULL,
    dropped_at timestamp with time zone,
    entered_by_id bigint,
    place_id bigint NOT NULL,
    made_id bigint
);
ALTER TABLE public.sowings_intention ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.sowings_intention_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sowings_sowing (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    sown_on date NOT NULL,
    seeds integer,
    depth_m double precision NOT NULL,
    finished boolean NOT NULL,
    outlook jsonb,
    removed_at timestamp with time zone,
    entered_by_id bigint,
    packet_id bigint,
    place_id bigint NOT NULL,
    cell_m double precision,
    sown_in_id bigint,
    heat_off_rule character varying(6) NOT NULL,
    CONSTRAINT sowings_sowing_seeds_check CHECK ((seeds >= 0))
);
ALTER TABLE public.sowings_sowing ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.sowings_sowing_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sowings_step (
    id bigint NOT NULL,
    kind character varying(12) NOT NULL,
    "on" date NOT NULL,
    cell_m double precision,
    left_c double precision[],
    left_id bigint,
    place_id bigint,
    sowing_id bigint NOT NULL,
    start_before_c double precision,
    start_c double precision
);
ALTER TABLE public.sowings_step ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.sowings_step_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.today_answer (
    id bigint NOT NULL,
    key character varying(80) NOT NULL,
    choice character varying(8) NOT NULL,
    kind character varying(12) NOT NULL,
    crop_key character varying(40) NOT NULL,
    at timestamp with time zone NOT NULL,
    until date,
    undone_at timestamp with time zone,
    by_id bigint,
    ended_id bigint,
    garden_id bigint NOT NULL,
    operation_id bigint,
    place_id bigint,
    period_id bigint,
    step_id bigint,
    planting_id bigint,
    tubers_id bigint
);
ALTER TABLE public.today_answer ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.today_answer_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.today_digestwish (
    id bigint NOT NULL,
    hour smallint NOT NULL,
    sent_on date,
    membership_id bigint NOT NULL,
    CONSTRAINT today_digestwish_hour_check CHECK ((hour >= 0))
);
ALTER TABLE public.today_digestwish ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.today_digestwish_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.trials_germinationtrial (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    begun_on date NOT NULL,
    ended_on date,
    garden_id bigint NOT NULL
);
ALTER TABLE public.trials_germinationtrial ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.trials_germinationtrial_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.trials_historicalgerminationtrial (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    begun_on date NOT NULL,
    ended_on date,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    garden_id bigint,
    history_user_id bigint
);
ALTER TABLE public.trials_historicalgerminationtrial ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.trials_historicalgerminationtrial_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.trials_historicaltrialbatch (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    warmth_c double precision,
    seeds integer NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    packet_id bigint,
    place_id bigint,
    trial_id bigint,
    CONSTRAINT trials_historicaltrialbatch_seeds_check CHECK ((seeds >= 0))
);
ALTER TABLE public.trials_historicaltrialbatch ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.trials_historicaltrialbatch_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.trials_historicaltrialcount (
    id bigint NOT NULL,
    "on" date NOT NULL,
    up integer NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    history_user_id bigint,
    batch_id bigint,
    CONSTRAINT trials_historicaltrialcount_up_check CHECK ((up >= 0))
);
ALTER TABLE public.trials_historicaltrialcount ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.trials_historicaltrialcount_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.trials_trialbatch (
    id bigint NOT NULL,
    crop_key character varying(40) NOT NULL,
    warmth_c double precision,
    seeds integer NOT NULL,
    packet_id bigint,
    place_id bigint,
    trial_id bigint NOT NULL,
    CONSTRAINT trials_trialbatch_seeds_check CHECK ((seeds >= 0))
);
ALTER TABLE public.trials_trialbatch ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.trials_trialbatch_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.trials_trialcount (
    id bigint NOT NULL,
    "on" date NOT NULL,
    up integer NOT NULL,
    batch_id bigint NOT NULL,
    CONSTRAINT trials_trialcount_up_check CHECK ((up >= 0))
);
ALTER TABLE public.trials_trialcount ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.trials_trialcount_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.upkeep_alert (
    id bigint NOT NULL,
    key character varying(80) NOT NULL,
    since timestamp with time zone NOT NULL,
    told_at timestamp with time zone,
    over_at timestamp with time zone,
    garden_id bigint
);
ALTER TABLE public.upkeep_alert ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.upkeep_alert_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.upkeep_backup (
    id bigint NOT NULL,
    made_at timestamp with time zone NOT NULL,
    file character varying(80) NOT NULL,
    size_bytes bigint NOT NULL,
    proved_at timestamp with time zone,
    copied_at timestamp with time zone,
    copy_failure text NOT NULL,
    failure text NOT NULL,
    CONSTRAINT upkeep_backup_size_bytes_check CHECK ((size_bytes >= 0))
);
ALTER TABLE public.upkeep_backup ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.upkeep_backup_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.usersessions_usersession (
    id bigint NOT NULL,
    created_at timestamp with time zone NOT NULL,
    ip inet NOT NULL,
    last_seen_at timestamp with time zone NOT NULL,
    session_key character varying(40) NOT NULL,
    user_agent character varying(200) NOT NULL,
    data jsonb NOT NULL,
    user_id bigint NOT NULL
);
ALTER TABLE public.usersessions_usersession ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.usersessions_usersession_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.weather_dailyweather (
    id bigint NOT NULL,
    day date NOT NULL,
    low_c double precision NOT NULL,
    high_c double precision NOT NULL,
    rain_mm double precision,
    sky character varying(10) NOT NULL,
    wind_m_s double precision,
    snow_m double precision,
    source character varying(10) NOT NULL,
    garden_id bigint NOT NULL
);
ALTER TABLE public.weather_dailyweather ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.weather_dailyweather_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.weather_historicaldailyweather (
    id bigint NOT NULL,
    day date NOT NULL,
    low_c double precision NOT NULL,
    high_c double precision NOT NULL,
    rain_mm double precision,
    sky character varying(10) NOT NULL,
    wind_m_s double precision,
    snow_m double precision,
    source character varying(10) NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    garden_id bigint,
    history_user_id bigint
);
ALTER TABLE public.weather_historicaldailyweather ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.weather_historicaldailyweather_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.weather_providerstate (
    id bigint NOT NULL,
    address character varying(500) NOT NULL,
    failures integer NOT NULL,
    failure character varying(200) NOT NULL,
    rests_until timestamp with time zone,
    CONSTRAINT weather_providerstate_failures_check CHECK ((failures >= 0))
);
ALTER TABLE public.weather_providerstate ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.weather_providerstate_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.weather_weathercell (
    id bigint NOT NULL,
    address character varying(500) NOT NULL,
    "row" integer NOT NULL,
    "column" integer NOT NULL,
    zone character varying(60) NOT NULL,
    asked_at timestamp with time zone NOT NULL,
    answer jsonb NOT NULL
);
ALTER TABLE public.weather_weathercell ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.weather_weathercell_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.weather_weatherreport (
    id bigint NOT NULL,
    asked_at timestamp with time zone,
    received_at timestamp with time zone,
    failed_at timestamp with time zone,
    failure character varying(200) NOT NULL,
    current_c double precision,
    ahead jsonb NOT NULL,
    past jsonb NOT NULL,
    garden_id bigint NOT NULL,
    simulated boolean NOT NULL
);
ALTER TABLE public.weather_weatherreport ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.weather_weatherreport_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.windows_calendarlink (
    id bigint NOT NULL,
    token character varying(64) NOT NULL,
    created_at timestamp with time zone NOT NULL,
    membership_id bigint NOT NULL
);
ALTER TABLE public.windows_calendarlink ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.windows_calendarlink_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.work_failure (
    id bigint NOT NULL,
    key character varying(120) NOT NULL,
    task character varying(80) NOT NULL,
    count integer NOT NULL,
    lost integer NOT NULL,
    first_at timestamp with time zone NOT NULL,
    last_at timestamp with time zone NOT NULL,
    next_at timestamp with time zone NOT NULL,
    text character varying(300) NOT NULL,
    detail character varying(2000) NOT NULL,
    garden_id bigint,
    place_id bigint,
    CONSTRAINT work_failure_count_check CHECK ((count >= 0)),
    CONSTRAINT work_failure_lost_check CHECK ((lost >= 0))
);
ALTER TABLE public.work_failure ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.work_failure_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.work_heartbeat (
    id bigint NOT NULL,
    part character varying(40) NOT NULL,
    at timestamp with time zone NOT NULL
);
ALTER TABLE public.work_heartbeat ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.work_heartbeat_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.work_worked (
    id bigint NOT NULL,
    day date NOT NULL,
    task character varying(80) NOT NULL,
    count integer NOT NULL,
    seconds double precision NOT NULL,
    garden_id bigint NOT NULL,
    CONSTRAINT work_worked_count_check CHECK ((count >= 0))
);
ALTER TABLE public.work_worked ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.work_worked_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.years_historicalsign (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    "on" date NOT NULL,
    history_id integer NOT NULL,
    history_date timestamp with time zone NOT NULL,
    history_change_reason character varying(100),
    history_type character varying(1) NOT NULL,
    garden_id bigint,
    history_user_id bigint
);
ALTER TABLE public.years_historicalsign ALTER COLUMN history_id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.years_historicalsign_history_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.years_sign (
    id bigint NOT NULL,
    name character varying(60) NOT NULL,
    "on" date NOT NULL,
    garden_id bigint NOT NULL
);
ALTER TABLE public.years_sign ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.years_sign_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2015 FOR VALUES FROM ('2015-01-01 00:00:00+00') TO ('2016-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2016 FOR VALUES FROM ('2016-01-01 00:00:00+00') TO ('2017-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2017 FOR VALUES FROM ('2017-01-01 00:00:00+00') TO ('2018-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2018 FOR VALUES FROM ('2018-01-01 00:00:00+00') TO ('2019-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2019 FOR VALUES FROM ('2019-01-01 00:00:00+00') TO ('2020-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2020 FOR VALUES FROM ('2020-01-01 00:00:00+00') TO ('2021-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2021 FOR VALUES FROM ('2021-01-01 00:00:00+00') TO ('2022-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2022 FOR VALUES FROM ('2022-01-01 00:00:00+00') TO ('2023-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2023 FOR VALUES FROM ('2023-01-01 00:00:00+00') TO ('2024-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2024 FOR VALUES FROM ('2024-01-01 00:00:00+00') TO ('2025-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2025 FOR VALUES FROM ('2025-01-01 00:00:00+00') TO ('2026-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2026 FOR VALUES FROM ('2026-01-01 00:00:00+00') TO ('2027-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2027 FOR VALUES FROM ('2027-01-01 00:00:00+00') TO ('2028-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2028 FOR VALUES FROM ('2028-01-01 00:00:00+00') TO ('2029-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2029 FOR VALUES FROM ('2029-01-01 00:00:00+00') TO ('2030-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2030 FOR VALUES FROM ('2030-01-01 00:00:00+00') TO ('2031-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2031 FOR VALUES FROM ('2031-01-01 00:00:00+00') TO ('2032-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2032 FOR VALUES FROM ('2032-01-01 00:00:00+00') TO ('2033-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2033 FOR VALUES FROM ('2033-01-01 00:00:00+00') TO ('2034-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2034 FOR VALUES FROM ('2034-01-01 00:00:00+00') TO ('2035-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2035 FOR VALUES FROM ('2035-01-01 00:00:00+00') TO ('2036-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2036 FOR VALUES FROM ('2036-01-01 00:00:00+00') TO ('2037-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2037 FOR VALUES FROM ('2037-01-01 00:00:00+00') TO ('2038-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2038 FOR VALUES FROM ('2038-01-01 00:00:00+00') TO ('2039-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2039 FOR VALUES FROM ('2039-01-01 00:00:00+00') TO ('2040-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2040 FOR VALUES FROM ('2040-01-01 00:00:00+00') TO ('2041-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2041 FOR VALUES FROM ('2041-01-01 00:00:00+00') TO ('2042-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2042 FOR VALUES FROM ('2042-01-01 00:00:00+00') TO ('2043-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2043 FOR VALUES FROM ('2043-01-01 00:00:00+00') TO ('2044-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2044 FOR VALUES FROM ('2044-01-01 00:00:00+00') TO ('2045-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_2045 FOR VALUES FROM ('2045-01-01 00:00:00+00') TO ('2046-01-01 00:00:00+00');
ALTER TABLE ONLY public.loggers_reading ATTACH PARTITION public.loggers_reading_else DEFAULT;
ALTER TABLE ONLY public.procrastinate_events ALTER COLUMN id SET DEFAULT nextval('public.procrastinate_events_id_seq'::regclass);
ALTER TABLE ONLY public.procrastinate_jobs ALTER COLUMN id SET DEFAULT nextval('public.procrastinate_jobs_id_seq'::regclass);
ALTER TABLE ONLY public.procrastinate_periodic_defers ALTER COLUMN id SET DEFAULT nextval('public.procrastinate_periodic_defers_id_seq'::regclass);
INSERT INTO public.auth_permission VALUES (1, 'Can add permission', 1, 'add_permission');
INSERT INTO public.auth_permission VALUES (2, 'Can change permission', 1, 'change_permission');
INSERT INTO public.auth_permission VALUES (3, 'Can delete permission', 1, 'delete_permission');
INSERT INTO public.auth_permission VALUES (4, 'Can view permission', 1, 'view_permission');
INSERT INTO public.auth_permission VALUES (5, 'Can add group', 2, 'add_group');
INSERT INTO public.auth_permission VALUES (6, 'Can change group', 2, 'change_group');
INSERT INTO public.auth_permission VALUES (7, 'Can delete group', 2, 'delete_group');
INSERT INTO public.auth_permission VALUES (8, 'Can view group', 2, 'view_group');
INSERT INTO public.auth_permission VALUES (9, 'Can add content type', 3, 'add_contenttype');
INSERT INTO public.auth_permission VALUES (10, 'Can change content type', 3, 'change_contenttype');
INSERT INTO public.auth_permission VALUES (11, 'Can delete content type', 3, 'delete_contenttype');
INSERT INTO public.auth_permission VALUES (12, 'Can view content type', 3, 'view_contenttype');
INSERT INTO public.auth_permission VALUES (13, 'Can add session', 4, 'add_session');
INSERT INTO public.auth_permission VALUES (14, 'Can change session', 4, 'change_session');
INSERT INTO public.auth_permission VALUES (15, 'Can delete session', 4, 'delete_session');
INSERT INTO public.auth_permission VALUES (16, 'Can view session', 4, 'view_session');
INSERT INTO public.auth_permission VALUES (17, 'Can add email address', 5, 'add_emailaddress');
INSERT INTO public.auth_permission VALUES (18, 'Can change email address', 5, 'change_emailaddress');
INSERT INTO public.auth_permission VALUES (19, 'Can delete email address', 5, 'delete_emailaddress');
INSERT INTO public.auth_permission VALUES (20, 'Can view email address', 5, 'view_emailaddress');
INSERT INTO public.auth_permission VALUES (21, 'Can add email confirmation', 6, 'add_emailconfirmation');
INSERT INTO public.auth_permission VALUES (22, 'Can change email confirmation', 6, 'change_emailconfirmation');
INSERT INTO public.auth_permission VALUES (23, 'Can delete email confirmation', 6, 'delete_emailconfirmation');
INSERT INTO public.auth_permission VALUES (24, 'Can view email confirmation', 6, 'view_emailconfirmation');
INSERT INTO public.auth_permission VALUES (25, 'Can add authenticator', 7, 'add_authenticator');
INSERT INTO public.auth_permission VALUES (26, 'Can change authenticator', 7, 'change_authenticator');
INSERT INTO public.auth_permission VALUES (27, 'Can delete authenticator', 7, 'delete_authenticator');
INSERT INTO public.auth_permission VALUES (28, 'Can view authenticator', 7, 'view_authenticator');
INSERT INTO public.auth_permission VALUES (29, 'Can add user session', 8, 'add_usersession');
INSERT INTO public.auth_permission VALUES (30, 'Can change user session', 8, 'change_usersession');
INSERT INTO public.auth_permission VALUES (31, 'Can delete user session', 8, 'delete_usersession');
INSERT INTO public.auth_permission VALUES (32, 'Can view user session', 8, 'view_usersession');
INSERT INTO public.auth_permission VALUES (33, 'Can add access attempt', 9, 'add_accessattempt');
INSERT INTO public.auth_permission VALUES (34, 'Can change access attempt', 9, 'change_accessattempt');
INSERT INTO public.auth_permission VALUES (35, 'Can delete access attempt', 9, 'delete_accessattempt');
INSERT INTO public.auth_permission VALUES (36, 'Can view access attempt', 9, 'view_accessattempt');
INSERT INTO public.auth_permission VALUES (37, 'Can add access log', 10, 'add_accesslog');
INSERT INTO public.auth_permission VALUES (38, 'Can change access log', 10, 'change_accesslog');
INSERT INTO public.auth_permission VALUES (39, 'Can delete access log', 10, 'delete_accesslog');
INSERT INTO public.auth_permission VALUES (40, 'Can view access log', 10, 'view_accesslog');
INSERT INTO public.auth_permission VALUES (41, 'Can add access failure', 11, 'add_accessfailurelog');
INSERT INTO public.auth_permission VALUES (42, 'Can change access failure', 11, 'change_accessfailurelog');
INSERT INTO public.auth_permission VALUES (43, 'Can delete access failure', 11, 'delete_accessfailurelog');
INSERT INTO public.auth_permission VALUES (44, 'Can view access failure', 11, 'view_accessfailurelog');
INSERT INTO public.auth_permission VALUES (45, 'Can add access attempt expiration', 12, 'add_accessattemptexpiration');
INSERT INTO public.auth_permission VALUES (46, 'Can change access attempt expiration', 12, 'change_accessattemptexpiration');
INSERT INTO public.auth_permission VALUES (47, 'Can delete access attempt expiration', 12, 'delete_accessattemptexpiration');
INSERT INTO public.auth_permission VALUES (48, 'Can view access attempt expiration', 12, 'view_accessattemptexpiration');
INSERT INTO public.auth_permission VALUES (49, 'Can add procrastinate event', 13, 'add_procrastinateevent');
INSERT INTO public.auth_permission VALUES (50, 'Can change procrastinate event', 13, 'change_procrastinateevent');
INSERT INTO public.auth_permission VALUES (51, 'Can delete procrastinate event', 13, 'delete_procrastinateevent');
INSERT INTO public.auth_permission VALUES (52, 'Can view procrastinate event', 13, 'view_procrastinateevent');
INSERT INTO public.auth_permission VALUES (53, 'Can add procrastinate job', 14, 'add_procrastinatejob');
INSERT INTO public.auth_permission VALUES (54, 'Can change procrastinate job', 14, 'change_procrastinatejob');
INSERT INTO public.auth_permission VALUES (55, 'Can delete procrastinate job', 14, 'delete_procrastinatejob');
INSERT INTO public.auth_permission VALUES (56, 'Can view procrastinate job', 14, 'view_procrastinatejob');
INSERT INTO public.auth_permission VALUES (57, 'Can add procrastinate periodic defer', 15, 'add_procrastinateperiodicdefer');
INSERT INTO public.auth_permission VALUES (58, 'Can change procrastinate periodic defer', 15, 'change_procrastinateperiodicdefer');
INSERT INTO public.auth_permission VALUES (59, 'Can delete procrastinate periodic defer', 15, 'delete_procrastinateperiodicdefer');
INSERT INTO public.auth_permission VALUES (60, 'Can view procrastinate periodic defer', 15, 'view_procrastinateperiodicdefer');
INSERT INTO public.auth_permission VALUES (61, 'Can add procrastinate worker', 16, 'add_procrastinateworker');
INSERT INTO public.auth_permission VALUES (62, 'Can change procrastinate worker', 16, 'change_procrastinateworker');
INSERT INTO public.auth_permission VALUES (63, 'Can delete procrastinate worker', 16, 'delete_procrastinateworker');
INSERT INTO public.auth_permission VALUES (64, 'Can view procrastinate worker', 16, 'view_procrastinateworker');
INSERT INTO public.auth_permission VALUES (65, 'Can add heartbeat', 17, 'add_heartbeat');
INSERT INTO public.auth_permission VALUES (66, 'Can change heartbeat', 17, 'change_heartbeat');
INSERT INTO public.auth_permission VALUES (67, 'Can delete heartbeat', 17, 'delete_heartbeat');
INSERT INTO public.auth_permission VALUES (68, 'Can view heartbeat', 17, 'view_heartbeat');
INSERT INTO public.auth_permission VALUES (69, 'Can add failure', 18, 'add_failure');
INSERT INTO public.auth_permission VALUES (70, 'Can change failure', 18, 'change_failure');
INSERT INTO public.auth_permission VALUES (71, 'Can delete failure', 18, 'delete_failure');
INSERT INTO public.auth_permission VALUES (72, 'Can view failure', 18, 'view_failure');
INSERT INTO public.auth_permission VALUES (73, 'Can add worked', 19, 'add_worked');
INSERT INTO public.auth_permission VALUES (74, 'Can change worked', 19, 'change_worked');
INSERT INTO public.auth_permission VALUES (75, 'Can delete worked', 19, 'delete_worked');
INSERT INTO public.auth_permission VALUES (76, 'Can view worked', 19, 'view_worked');
INSERT INTO public.auth_permission VALUES (77, 'Can add garden', 20, 'add_garden');
INSERT INTO public.auth_permission VALUES (78, 'Can change garden', 20, 'change_garden');
INSERT INTO public.auth_permission VALUES (79, 'Can delete garden', 20, 'delete_garden');
INSERT INTO public.auth_permission VALUES (80, 'Can view garden', 20, 'view_garden');
INSERT INTO public.auth_permission VALUES (81, 'Can add user', 21, 'add_user');
INSERT INTO public.auth_permission VALUES (82, 'Can change user', 21, 'change_user');
INSERT INTO public.auth_permission VALUES (83, 'Can delete user', 21, 'delete_user');
INSERT INTO public.auth_permission VALUES (84, 'Can view user', 21, 'view_user');
INSERT INTO public.auth_permission VALUES (85, 'Can add invitation', 22, 'add_invitation');
INSERT INTO public.auth_permission VALUES (86, 'Can change invitation', 22, 'change_invitation');
INSERT INTO public.auth_permission VALUES (87, 'Can delete invitation', 22, 'delete_invitation');
INSERT INTO public.auth_permission VALUES (88, 'Can view invitation', 22, 'view_invitation');
INSERT INTO public.auth_permission VALUES (89, 'Can add membership', 23, 'add_membership');
INSERT INTO public.auth_permission VALUES (90, 'Can change membership', 23, 'change_membership');
INSERT INTO public.auth_permission VALUES (91, 'Can delete membership', 23, 'delete_membership');
INSERT INTO public.auth_permission VALUES (92, 'Can view membership', 23, 'view_membership');
INSERT INTO public.auth_permission VALUES (93, 'Can add cover', 24, 'add_cover');
INSERT INTO public.auth_permission VALUES (94, 'Can change cover', 24, 'change_cover');
INSERT INTO public.auth_permission VALUES (95, 'Can delete cover', 24, 'delete_cover');
INSERT INTO public.auth_permission VALUES (96, 'Can view cover', 24, 'view_cover');
INSERT INTO public.auth_permission VALUES (97, 'Can add historical cover', 25, 'add_historicalcover');
INSERT INTO public.auth_permission VALUES (98, 'Can change historical cover', 25, 'change_historicalcover');
INSERT INTO public.auth_permission VALUES (99, 'Can delete historical cover', 25, 'delete_historicalcover');
INSERT INTO public.auth_permission VALUES (100, 'Can view historical cover', 25, 'view_historicalcover');
INSERT INTO public.auth_permission VALUES (101, 'Can add historical place', 26, 'add_historicalplace');
INSERT INTO public.auth_permission VALUES (102, 'Can change historical place', 26, 'change_historicalplace');
INSERT INTO public.auth_permission VALUES (103, 'Can delete historical place', 26, 'delete_historicalplace');
INSERT INTO public.auth_permission VALUES (104, 'Can view historical place', 26, 'view_historicalplace');
INSERT INTO public.auth_permission VALUES (105, 'Can add place', 27, 'add_place');
INSERT INTO public.auth_permission VALUES (106, 'Can change place', 27, 'change_place');
INSERT INTO public.auth_permission VALUES (107, 'Can delete place', 27, 'delete_place');
INSERT INTO public.auth_permission VALUES (108, 'Can view place', 27, 'view_place');
INSERT INTO public.auth_permission VALUES (109, 'Can add operation', 28, 'add_operation');
INSERT INTO public.auth_permission VALUES (110, 'Can change operation', 28, 'change_operation');
INSERT INTO public.auth_permission VALUES (111, 'Can delete operation', 28, 'delete_operation');
INSERT INTO public.auth_permission VALUES (112, 'Can view operation', 28, 'view_operation');
INSERT INTO public.auth_permission VALUES (113, 'Can add hotbed', 29, 'add_hotbed');
INSERT INTO public.auth_permission VALUES (114, 'Can change hotbed', 29, 'change_hotbed');
INSERT INTO public.auth_permission VALUES (115, 'Can delete hotbed', 29, 'delete_hotbed');
INSERT INTO public.auth_permission VALUES (116, 'Can view hotbed', 29, 'view_hotbed');
INSERT INTO public.auth_permission VALUES (117, 'Can add historical operation', 30, 'add_historicaloperation');
INSERT INTO public.auth_permission VALUES (118, 'Can change historical operation', 30, 'change_historicaloperation');
INSERT INTO public.auth_permission VALUES (119, 'Can delete historical operation', 30, 'delete_historicaloperation');
INSERT INTO public.auth_permission VALUES (120, 'Can view historical operation', 30, 'view_historicaloperation');
INSERT INTO public.auth_permission VALUES (121, 'Can add historical hotbed', 31, 'add_historicalhotbed');
INSERT INTO public.auth_permission VALUES (122, 'Can change historical hotbed', 31, 'change_historicalhotbed');
INSERT INTO public.auth_permission VALUES (123, 'Can delete historical hotbed', 31, 'delete_historicalhotbed');
INSERT INTO public.auth_permission VALUES (124, 'Can view historical hotbed', 31, 'view_historicalhotbed');
INSERT INTO public.auth_permission VALUES (125, 'Can add historical cover period', 32, 'add_historicalcoverperiod');
INSERT INTO public.auth_permission VALUES (126, 'Can change historical cover period', 32, 'change_historicalcoverperiod');
INSERT INTO public.auth_permission VALUES (127, 'Can delete historical cover period', 32, 'delete_historicalcoverperiod');
INSERT INTO public.auth_permission VALUES (128, 'Can view historical cover period', 32, 'view_historicalcoverperiod');
INSERT INTO public.auth_permission VALUES (129, 'Can add cover period', 33, 'add_coverperiod');
INSERT INTO public.auth_permission VALUES (130, 'Can change cover period', 33, 'change_coverperiod');
INSERT INTO public.auth_permission VALUES (131, 'Can delete cover period', 33, 'delete_coverperiod');
INSERT INTO public.auth_permission VALUES (132, 'Can view cover period', 33, 'view_coverperiod');
INSERT INTO public.auth_permission VALUES (133, 'Can add heat period', 34, 'add_heatperiod');
INSERT INTO public.auth_permission VALUES (134, 'Can change heat period', 34, 'change_heatperiod');
INSERT INTO public.auth_permission VALUES (135, 'Can delete heat period', 34, 'delete_heatperiod');
INSERT INTO public.auth_permission VALUES (136, 'Can view heat period', 34, 'view_heatperiod');
INSERT INTO public.auth_permission VALUES (137, 'Can add heat test', 35, 'add_heattest');
INSERT INTO public.auth_permission VALUES (138, 'Can change heat test', 35, 'change_heattest');
INSERT INTO public.auth_permission VALUES (139, 'Can delete heat test', 35, 'delete_heattest');
INSERT INTO public.auth_permission VALUES (140, 'Can view heat test', 35, 'view_heattest');
INSERT INTO public.auth_permission VALUES (141, 'Can add historical heat period', 36, 'add_historicalheatperiod');
INSERT INTO public.auth_permission VALUES (142, 'Can change historical heat period', 36, 'change_historicalheatperiod');
INSERT INTO public.auth_permission VALUES (143, 'Can delete historical heat period', 36, 'delete_historicalheatperiod');
INSERT INTO public.auth_permission VALUES (144, 'Can view historical heat period', 36, 'view_historicalheatperiod');
INSERT INTO public.auth_permission VALUES (145, 'Can add historical heat test', 37, 'add_historicalheattest');
INSERT INTO public.auth_permission VALUES (146, 'Can change historical heat test', 37, 'change_historicalheattest');
INSERT INTO public.auth_permission VALUES (147, 'Can delete historical heat test', 37, 'delete_historicalheattest');
INSERT INTO public.auth_permission VALUES (148, 'Can view historical heat test', 37, 'view_historicalheattest');
INSERT INTO public.auth_permission VALUES (149, 'Can add historical hotbed fill', 38, 'add_historicalhotbedfill');
INSERT INTO public.auth_permission VALUES (150, 'Can change historical hotbed fill', 38, 'change_historicalhotbedfill');
INSERT INTO public.auth_permission VALUES (151, 'Can delete historical hotbed fill', 38, 'delete_historicalhotbedfill');
INSERT INTO public.auth_permission VALUES (152, 'Can view historical hotbed fill', 38, 'view_historicalhotbedfill');
INSERT INTO public.auth_permission VALUES (153, 'Can add historical hotbed note', 39, 'add_historicalhotbednote');
INSERT INTO public.auth_permission VALUES (154, 'Can change historical hotbed note', 39, 'change_historicalhotbednote');
INSERT INTO public.auth_permission VALUES (155, 'Can delete historical hotbed note', 39, 'delete_historicalhotbednote');
INSERT INTO public.auth_permission VALUES (156, 'Can view historical hotbed note', 39, 'view_historicalhotbednote');
INSERT INTO public.auth_permission VALUES (157, 'Can add historical lamp', 40, 'add_historicallamp');
INSERT INTO public.auth_permission VALUES (158, 'Can change historical lamp', 40, 'change_historicallamp');
INSERT INTO public.auth_permission VALUES (159, 'Can delete historical lamp', 40, 'delete_historicallamp');
INSERT INTO public.auth_permission VALUES (160, 'Can view historical lamp', 40, 'view_historicallamp');
INSERT INTO public.auth_permission VALUES (161, 'Can add historical room', 41, 'add_historicalroom');
INSERT INTO public.auth_permission VALUES (162, 'Can change historical room', 41, 'change_historicalroom');
INSERT INTO public.auth_permission VALUES (163, 'Can delete historical room', 41, 'delete_historicalroom');
INSERT INTO public.auth_permission VALUES (164, 'Can view historical room', 41, 'view_historicalroom');
INSERT INTO public.auth_permission VALUES (165, 'Can add hotbed fill', 42, 'add_hotbedfill');
INSERT INTO public.auth_permission VALUES (166, 'Can change hotbed fill', 42, 'change_hotbedfill');
INSERT INTO public.auth_permission VALUES (167, 'Can delete hotbed fill', 42, 'delete_hotbedfill');
INSERT INTO public.auth_permission VALUES (168, 'Can view hotbed fill', 42, 'view_hotbedfill');
INSERT INTO public.auth_permission VALUES (169, 'Can add hotbed note', 43, 'add_hotbednote');
INSERT INTO public.auth_permission VALUES (170, 'Can change hotbed note', 43, 'change_hotbednote');
INSERT INTO public.auth_permission VALUES (171, 'Can delete hotbed note', 43, 'delete_hotbednote');
INSERT INTO public.auth_permission VALUES (172, 'Can view hotbed note', 43, 'view_hotbednote');
INSERT INTO public.auth_permission VALUES (173, 'Can add lamp', 44, 'add_lamp');
INSERT INTO public.auth_permission VALUES (174, 'Can change lamp', 44, 'change_lamp');
INSERT INTO public.auth_permission VALUES (175, 'Can delete lamp', 44, 'delete_lamp');
INSERT INTO public.auth_permission VALUES (176, 'Can view lamp', 44, 'view_lamp');
INSERT INTO public.auth_permission VALUES (177, 'Can add room', 45, 'add_room');
INSERT INTO public.auth_permission VALUES (178, 'Can change room', 45, 'change_room');
INSERT INTO public.auth_permission VALUES (179, 'Can delete room', 45, 'delete_room');
INSERT INTO public.auth_permission VALUES (180, 'Can view room', 45, 'view_room');
INSERT INTO public.auth_permission VALUES (181, 'Can add historical room air', 46, 'add_historicalroomair');
INSERT INTO public.auth_permission VALUES (182, 'Can change historical room air', 46, 'change_historicalroomair');
INSERT INTO public.auth_permission VALUES (183, 'Can delete historical room air', 46, 'delete_historicalroomair');
INSERT INTO public.auth_permission VALUES (184, 'Can view historical room air', 46, 'view_historicalroomair');
INSERT INTO public.auth_permission VALUES (185, 'Can add room air', 47, 'add_roomair');
INSERT INTO public.auth_permission VALUES (186, 'Can change room air', 47, 'change_roomair');
INSERT INTO public.auth_permission VALUES (187, 'Can delete room air', 47, 'delete_roomair');
INSERT INTO public.auth_permission VALUES (188, 'Can view room air', 47, 'view_roomair');
INSERT INTO public.auth_permission VALUES (189, 'Can add cover damage', 48, 'add_coverdamage');
INSERT INTO public.auth_permission VALUES (190, 'Can change cover damage', 48, 'change_coverdamage');
INSERT INTO public.auth_permission VALUES (191, 'Can delete cover damage', 48, 'delete_coverdamage');
INSERT INTO public.auth_permission VALUES (192, 'Can view cover damage', 48, 'view_coverdamage');
INSERT INTO public.auth_permission VALUES (193, 'Can add historical hotbed tray', 49, 'add_historicalhotbedtray');
INSERT INTO public.auth_permission VALUES (194, 'Can change historical hotbed tray', 49, 'change_historicalhotbedtray');
INSERT INTO public.auth_permission VALUES (195, 'Can delete historical hotbed tray', 49, 'delete_historicalhotbedtray');
INSERT INTO public.auth_permission VALUES (196, 'Can view historical hotbed tray', 49, 'view_historicalhotbedtray');
INSERT INTO public.auth_permission VALUES (197, 'Can add hotbed tray', 50, 'add_hotbedtray');
INSERT INTO public.auth_permission VALUES (198, 'Can change hotbed tray', 50, 'change_hotbedtray');
INSERT INTO public.auth_permission VALUES (199, 'Can delete hotbed tray', 50, 'delete_hotbedtray');
INSERT INTO public.auth_permission VALUES (200, 'Can view hotbed tray', 50, 'view_hotbedtray');
INSERT INTO public.auth_permission VALUES (201, 'Can add historical bench check', 51, 'add_historicalbenchcheck');
INSERT INTO public.auth_permission VALUES (202, 'Can change historical bench check', 51, 'change_historicalbenchcheck');
INSERT INTO public.auth_permission VALUES (203, 'Can delete historical bench check', 51, 'delete_historicalbenchcheck');
INSERT INTO public.auth_permission VALUES (204, 'Can view historical bench check', 51, 'view_historicalbenchcheck');
INSERT INTO public.auth_permission VALUES (205, 'Can add bench check', 52, 'add_benchcheck');
INSERT INTO public.auth_permission VALUES (206, 'Can change bench check', 52, 'change_benchcheck');
INSERT INTO public.auth_permission VALUES (207, 'Can delete bench check', 52, 'delete_benchcheck');
INSERT INTO public.auth_permission VALUES (208, 'Can view bench check', 52, 'view_benchcheck');
INSERT INTO public.auth_permission VALUES (209, 'Can add historical tuber tray', 53, 'add_historicaltubertray');
INSERT INTO public.auth_permission VALUES (210, 'Can change historical tuber tray', 53, 'change_historicaltubertray');
INSERT INTO public.auth_permission VALUES (211, 'Can delete historical tuber tray', 53, 'delete_historicaltubertray');
INSERT INTO public.auth_permission VALUES (212, 'Can view historical tuber tray', 53, 'view_historicaltubertray');
INSERT INTO public.auth_permission VALUES (213, 'Can add tuber tray', 54, 'add_tubertray');
INSERT INTO public.auth_permission VALUES (214, 'Can change tuber tray', 54, 'change_tubertray');
INSERT INTO public.auth_permission VALUES (215, 'Can delete tuber tray', 54, 'delete_tubertray');
INSERT INTO public.auth_permission VALUES (216, 'Can view tuber tray', 54, 'view_tubertray');
INSERT INTO public.auth_permission VALUES (217, 'Can add crop choice', 55, 'add_cropchoice');
INSERT INTO public.auth_permission VALUES (218, 'Can change crop choice', 55, 'change_cropchoice');
INSERT INTO public.auth_permission VALUES (219, 'Can delete crop choice', 55, 'delete_cropchoice');
INSERT INTO public.auth_permission VALUES (220, 'Can view crop choice', 55, 'view_cropchoice');
INSERT INTO public.auth_permission VALUES (221, 'Can add packet', 56, 'add_packet');
INSERT INTO public.auth_permission VALUES (222, 'Can change packet', 56, 'change_packet');
INSERT INTO public.auth_permission VALUES (223, 'Can delete packet', 56, 'delete_packet');
INSERT INTO public.auth_permission VALUES (224, 'Can view packet', 56, 'view_packet');
INSERT INTO public.auth_permission VALUES (225, 'Can add historical daily weather', 57, 'add_historicaldailyweather');
INSERT INTO public.auth_permission VALUES (226, 'Can change historical daily weather', 57, 'change_historicaldailyweather');
INSERT INTO public.auth_permission VALUES (227, 'Can delete historical daily weather', 57, 'delete_historicaldailyweather');
INSERT INTO public.auth_permission VALUES (228, 'Can view historical daily weather', 57, 'view_historicaldailyweather');
INSERT INTO public.auth_permission VALUES (229, 'Can add weather report', 58, 'add_weatherreport');
INSERT INTO public.auth_permission VALUES (230, 'Can change weather report', 58, 'change_weatherreport');
INSERT INTO public.auth_permission VALUES (231, 'Can delete weather report', 58, 'delete_weatherreport');
INSERT INTO public.auth_permission VALUES (232, 'Can view weather report', 58, 'view_weatherreport');
INSERT INTO public.auth_permission VALUES (233, 'Can add daily weather', 59, 'add_dailyweather');
INSERT INTO public.auth_permission VALUES (234, 'Can change daily weather', 59, 'change_dailyweather');
INSERT INTO public.auth_permission VALUES (235, 'Can delete daily weather', 59, 'delete_dailyweather');
INSERT INTO public.auth_permission VALUES (236, 'Can view daily weather', 59, 'view_dailyweather');
INSERT INTO public.auth_permission VALUES (237, 'Can add provider state', 60, 'add_providerstate');
INSERT INTO public.auth_permission VALUES (238, 'Can change provider state', 60, 'change_providerstate');
INSERT INTO public.auth_permission VALUES (239, 'Can delete provider state', 60, 'delete_providerstate');
INSERT INTO public.auth_permission VALUES (240, 'Can view provider state', 60, 'view_providerstate');
INSERT INTO public.auth_permission VALUES (241, 'Can add weather cell', 61, 'add_weathercell');
INSERT INTO public.auth_permission VALUES (242, 'Can change weather cell', 61, 'change_weathercell');
INSERT INTO public.auth_permission VALUES (243, 'Can delete weather cell', 61, 'delete_weathercell');
INSERT INTO public.auth_permission VALUES (244, 'Can view weather cell', 61, 'view_weathercell');
INSERT INTO public.auth_permission VALUES (245, 'Can add device', 62, 'add_device');
INSERT INTO public.auth_permission VALUES (246, 'Can change device', 62, 'change_device');
INSERT INTO public.auth_permission VALUES (247, 'Can delete device', 62, 'delete_device');
INSERT INTO public.auth_permission VALUES (248, 'Can view device', 62, 'view_device');
INSERT INTO public.auth_permission VALUES (249, 'Can add probe', 63, 'add_probe');
INSERT INTO public.auth_permission VALUES (250, 'Can change probe', 63, 'change_probe');
INSERT INTO public.auth_permission VALUES (251, 'Can delete probe', 63, 'delete_probe');
INSERT INTO public.auth_permission VALUES (252, 'Can view probe', 63, 'view_probe');
INSERT INTO public.auth_permission VALUES (253, 'Can add logged reading', 64, 'add_loggedreading');
INSERT INTO public.auth_permission VALUES (254, 'Can change logged reading', 64, 'change_loggedreading');
INSERT INTO public.auth_permission VALUES (255, 'Can delete logged reading', 64, 'delete_loggedreading');
INSERT INTO public.auth_permission VALUES (256, 'Can view logged reading', 64, 'view_loggedreading');
INSERT INTO public.auth_permission VALUES (257, 'Can add logged hour', 65, 'add_loggedhour');
INSERT INTO public.auth_permission VALUES (258, 'Can change logged hour', 65, 'change_loggedhour');
INSERT INTO public.auth_permission VALUES (259, 'Can delete logged hour', 65, 'delete_loggedhour');
INSERT INTO public.auth_permission VALUES (260, 'Can view logged hour', 65, 'view_loggedhour');
INSERT INTO public.auth_permission VALUES (261, 'Can add refused message', 66, 'add_refusedmessage');
INSERT INTO public.auth_permission VALUES (262, 'Can change refused message', 66, 'change_refusedmessage');
INSERT INTO public.auth_permission VALUES (263, 'Can delete refused message', 66, 'delete_refusedmessage');
INSERT INTO public.auth_permission VALUES (264, 'Can view refused message', 66, 'view_refusedmessage');
INSERT INTO public.auth_permission VALUES (265, 'Can add message mapping', 67, 'add_messagemapping');
INSERT INTO public.auth_permission VALUES (266, 'Can change message mapping', 67, 'change_messagemapping');
INSERT INTO public.auth_permission VALUES (267, 'Can delete message mapping', 67, 'delete_messagemapping');
INSERT INTO public.auth_permission VALUES (268, 'Can view message mapping', 67, 'view_messagemapping');
INSERT INTO public.auth_permission VALUES (269, 'Can add historical visit', 68, 'add_historicalvisit');
INSERT INTO public.auth_permission VALUES (270, 'Can change historical visit', 68, 'change_historicalvisit');
INSERT INTO public.auth_permission VALUES (271, 'Can delete historical visit', 68, 'delete_historicalvisit');
INSERT INTO public.auth_permission VALUES (272, 'Can view historical visit', 68, 'view_historicalvisit');
INSERT INTO public.auth_permission VALUES (273, 'Can add incoming file', 69, 'add_incomingfile');
INSERT INTO public.auth_permission VALUES (274, 'Can change incoming file', 69, 'change_incomingfile');
INSERT INTO public.auth_permission VALUES (275, 'Can delete incoming file', 69, 'delete_incomingfile');
INSERT INTO public.auth_permission VALUES (276, 'Can view incoming file', 69, 'view_incomingfile');
INSERT INTO public.auth_permission VALUES (277, 'Can add visit', 70, 'add_visit');
INSERT INTO public.auth_permission VALUES (278, 'Can change visit', 70, 'change_visit');
INSERT INTO public.auth_permission VALUES (279, 'Can delete visit', 70, 'delete_visit');
INSERT INTO public.auth_permission VALUES (280, 'Can view visit', 70, 'view_visit');
INSERT INTO public.auth_permission VALUES (281, 'Can add reading', 71, 'add_reading');
INSERT INTO public.auth_permission VALUES (282, 'Can change reading', 71, 'change_reading');
INSERT INTO public.auth_permission VALUES (283, 'Can delete reading', 71, 'delete_reading');
INSERT INTO public.auth_permission VALUES (284, 'Can view reading', 71, 'view_reading');
INSERT INTO public.auth_permission VALUES (285, 'Can add historical reading', 72, 'add_historicalreading');
INSERT INTO public.auth_permission VALUES (286, 'Can change historical reading', 72, 'change_historicalreading');
INSERT INTO public.auth_permission VALUES (287, 'Can delete historical reading', 72, 'delete_historicalreading');
INSERT INTO public.auth_permission VALUES (288, 'Can view historical reading', 72, 'view_historicalreading');
INSERT INTO public.auth_permission VALUES (289, 'Can add file source', 73, 'add_filesource');
INSERT INTO public.auth_permission VALUES (290, 'Can change file source', 73, 'change_filesource');
INSERT INTO public.auth_permission VALUES (291, 'Can delete file source', 73, 'delete_filesource');
INSERT INTO public.auth_permission VALUES (292, 'Can view file source', 73, 'view_filesource');
INSERT INTO public.auth_permission VALUES (293, 'Can add watched file', 74, 'add_watchedfile');
INSERT INTO public.auth_permission VALUES (294, 'Can change watched file', 74, 'change_watchedfile');
INSERT INTO public.auth_permission VALUES (295, 'Can delete watched file', 74, 'delete_watchedfile');
INSERT INTO public.auth_permission VALUES (296, 'Can view watched file', 74, 'view_watchedfile');
INSERT INTO public.auth_permission VALUES (297, 'Can add historical sowing', 75, 'add_historicalsowing');
INSERT INTO public.auth_permission VALUES (298, 'Can change historical sowing', 75, 'change_historicalsowing');
INSERT INTO public.auth_permission VALUES (299, 'Can delete historical sowing', 75, 'delete_historicalsowing');
INSERT INTO public.auth_permission VALUES (300, 'Can view historical sowing', 75, 'view_historicalsowing');
INSERT INTO public.auth_permission VALUES (301, 'Can add sowing', 76, 'add_sowing');
INSERT INTO public.auth_permission VALUES (302, 'Can change sowing', 76, 'change_sowing');
INSERT INTO public.auth_permission VALUES (303, 'Can delete sowing', 76, 'delete_sowing');
INSERT INTO public.auth_permission VALUES (304, 'Can view sowing', 76, 'view_sowing');
INSERT INTO public.auth_permission VALUES (305, 'Can add intention', 77, 'add_intention');
INSERT INTO public.auth_permission VALUES (306, 'Can change intention', 77, 'change_intention');
INSERT INTO public.auth_permission VALUES (307, 'Can delete intention', 77, 'delete_intention');
INSERT INTO public.auth_permission VALUES (308, 'Can view intention', 77, 'view_intention');
INSERT INTO public.auth_permission VALUES (309, 'Can add historical intention', 78, 'add_historicalintention');
INSERT INTO public.auth_permission VALUES (310, 'Can change historical intention', 78, 'change_historicalintention');
INSERT INTO public.auth_permission VALUES (311, 'Can delete historical intention', 78, 'delete_historicalintention');
INSERT INTO public.auth_permission VALUES (312, 'Can view historical intention', 78, 'view_historicalintention');
INSERT INTO public.auth_permission VALUES (313, 'Can add historical count', 79, 'add_historicalcount');
INSERT INTO public.auth_permission VALUES (314, 'Can change historical count', 79, 'change_historicalcount');
INSERT INTO public.auth_permission VALUES (315, 'Can delete historical count', 79, 'delete_historicalcount');
INSERT INTO public.auth_permission VALUES (316, 'Can view historical count', 79, 'view_historicalcount');
INSERT INTO public.auth_permission VALUES (317, 'Can add count', 80, 'add_count');
INSERT INTO public.auth_permission VALUES (318, 'Can change count', 80, 'change_count');
INSERT INTO public.auth_permission VALUES (319, 'Can delete count', 80, 'delete_count');
INSERT INTO public.auth_permission VALUES (320, 'Can view count', 80, 'view_count');
INSERT INTO public.auth_permission VALUES (321, 'Can add historical step', 81, 'add_historicalstep');
INSERT INTO public.auth_permission VALUES (322, 'Can change historical step', 81, 'change_historicalstep');
INSERT INTO public.auth_permission VALUES (323, 'Can delete historical step', 81, 'delete_historicalstep');
INSERT INTO public.auth_permission VALUES (324, 'Can view historical step', 81, 'view_historicalstep');
INSERT INTO public.auth_permission VALUES (325, 'Can add step', 82, 'add_step');
INSERT INTO public.auth_permission VALUES (326, 'Can change step', 82, 'change_step');
INSERT INTO public.auth_permission VALUES (327, 'Can delete step', 82, 'delete_step');
INSERT INTO public.auth_permission VALUES (328, 'Can view step', 82, 'view_step');
INSERT INTO public.auth_permission VALUES (329, 'Can add bed shape', 83, 'add_bedshape');
INSERT INTO public.auth_permission VALUES (330, 'Can change bed shape', 83, 'change_bedshape');
INSERT INTO public.auth_permission VALUES (331, 'Can delete bed shape', 83, 'delete_bedshape');
INSERT INTO public.auth_permission VALUES (332, 'Can view bed shape', 83, 'view_bedshape');
INSERT INTO public.auth_permission VALUES (333, 'Can add historical bed shape', 84, 'add_historicalbedshape');
INSERT INTO public.auth_permission VALUES (334, 'Can change historical bed shape', 84, 'change_historicalbedshape');
INSERT INTO public.auth_permission VALUES (335, 'Can delete historical bed shape', 84, 'delete_historicalbedshape');
INSERT INTO public.auth_permission VALUES (336, 'Can view historical bed shape', 84, 'view_historicalbedshape');
INSERT INTO public.auth_permission VALUES (337, 'Can add historical planting', 85, 'add_historicalplanting');
INSERT INTO public.auth_permission VALUES (338, 'Can change historical planting', 85, 'change_historicalplanting');
INSERT INTO public.auth_permission VALUES (339, 'Can delete historical planting', 85, 'delete_historicalplanting');
INSERT INTO public.auth_permission VALUES (340, 'Can view historical planting', 85, 'view_historicalplanting');
INSERT INTO public.auth_permission VALUES (341, 'Can add planting', 86, 'add_planting');
INSERT INTO public.auth_permission VALUES (342, 'Can change planting', 86, 'change_planting');
INSERT INTO public.auth_permission VALUES (343, 'Can delete planting', 86, 'delete_planting');
INSERT INTO public.auth_permission VALUES (344, 'Can view planting', 86, 'view_planting');
INSERT INTO public.auth_permission VALUES (345, 'Can add plant event', 87, 'add_plantevent');
INSERT INTO public.auth_permission VALUES (346, 'Can change plant event', 87, 'change_plantevent');
INSERT INTO public.auth_permission VALUES (347, 'Can delete plant event', 87, 'delete_plantevent');
INSERT INTO public.auth_permission VALUES (348, 'Can view plant event', 87, 'view_plantevent');
INSERT INTO public.auth_permission VALUES (349, 'Can add historical plant event', 88, 'add_historicalplantevent');
INSERT INTO public.auth_permission VALUES (350, 'Can change historical plant event', 88, 'change_historicalplantevent');
INSERT INTO public.auth_permission VALUES (351, 'Can delete historical plant event', 88, 'delete_historicalplantevent');
INSERT INTO public.auth_permission VALUES (352, 'Can view historical plant event', 88, 'view_historicalplantevent');
INSERT INTO public.auth_permission VALUES (353, 'Can add saved seed', 89, 'add_savedseed');
INSERT INTO public.auth_permission VALUES (354, 'Can change saved seed', 89, 'change_savedseed');
INSERT INTO public.auth_permission VALUES (355, 'Can delete saved seed', 89, 'delete_savedseed');
INSERT INTO public.auth_permission VALUES (356, 'Can view saved seed', 89, 'view_savedseed');
INSERT INTO public.auth_permission VALUES (357, 'Can add forecast', 90, 'add_forecast');
INSERT INTO public.auth_permission VALUES (358, 'Can change forecast', 90, 'change_forecast');
INSERT INTO public.auth_permission VALUES (359, 'Can delete forecast', 90, 'delete_forecast');
INSERT INTO public.auth_permission VALUES (360, 'Can view forecast', 90, 'view_forecast');
INSERT INTO public.auth_permission VALUES (361, 'Can add model snapshot', 91, 'add_modelsnapshot');
INSERT INTO public.auth_permission VALUES (362, 'Can change model snapshot', 91, 'change_modelsnapshot');
INSERT INTO public.auth_permission VALUES (363, 'Can delete model snapshot', 91, 'delete_modelsnapshot');
INSERT INTO public.auth_permission VALUES (364, 'Can view model snapshot', 91, 'view_modelsnapshot');
INSERT INTO public.auth_permission VALUES (365, 'Can add crop outlook', 92, 'add_cropoutlook');
INSERT INTO public.auth_permission VALUES (366, 'Can change crop outlook', 92, 'change_cropoutlook');
INSERT INTO public.auth_permission VALUES (367, 'Can delete crop outlook', 92, 'delete_cropoutlook');
INSERT INTO public.auth_permission VALUES (368, 'Can view crop outlook', 92, 'view_cropoutlook');
INSERT INTO public.auth_permission VALUES (369, 'Can add window change', 93, 'add_windowchange');
INSERT INTO public.auth_permission VALUES (370, 'Can change window change', 93, 'change_windowchange');
INSERT INTO public.auth_permission VALUES (371, 'Can delete window change', 93, 'delete_windowchange');
INSERT INTO public.auth_permission VALUES (372, 'Can view window change', 93, 'view_windowchange');
INSERT INTO public.auth_permission VALUES (373, 'Can add soil year', 94, 'add_soilyear');
INSERT INTO public.auth_permission VALUES (374, 'Can change soil year', 94, 'change_soilyear');
INSERT INTO public.auth_permission VALUES (375, 'Can delete soil year', 94, 'delete_soilyear');
INSERT INTO public.auth_permission VALUES (376, 'Can view soil year', 94, 'view_soilyear');
INSERT INTO public.auth_permission VALUES (377, 'Can add calendar link', 95, 'add_calendarlink');
INSERT INTO public.auth_permission VALUES (378, 'Can change calendar link', 95, 'change_calendarlink');
INSERT INTO public.auth_permission VALUES (379, 'Can delete calendar link', 95, 'delete_calendarlink');
INSERT INTO public.auth_permission VALUES (380, 'Can view calendar link', 95, 'view_calendarlink');
INSERT INTO public.auth_permission VALUES (381, 'Can add cover trial', 96, 'add_covertrial');
INSERT INTO public.auth_permission VALUES (382, 'Can change cover trial', 96, 'change_covertrial');
INSERT INTO public.auth_permission VALUES (383, 'Can delete cover trial', 96, 'delete_covertrial');
INSERT INTO public.auth_permission VALUES (384, 'Can view cover trial', 96, 'view_covertrial');
INSERT INTO public.auth_permission VALUES (385, 'Can add historical cover trial', 97, 'add_historicalcovertrial');
INSERT INTO public.auth_permission VALUES (386, 'Can change historical cover trial', 97, 'change_historicalcovertrial');
INSERT INTO public.auth_permission VALUES (387, 'Can delete historical cover trial', 97, 'delete_historicalcovertrial');
INSERT INTO public.auth_permission VALUES (388, 'Can view historical cover trial', 97, 'view_historicalcovertrial');
INSERT INTO public.auth_permission VALUES (389, 'Can add bed answer', 98, 'add_bedanswer');
INSERT INTO public.auth_permission VALUES (390, 'Can change bed answer', 98, 'change_bedanswer');
INSERT INTO public.auth_permission VALUES (391, 'Can delete bed answer', 98, 'delete_bedanswer');
INSERT INTO public.auth_permission VALUES (392, 'Can view bed answer', 98, 'view_bedanswer');
INSERT INTO public.auth_permission VALUES (393, 'Can add season answer', 99, 'add_seasonanswer');
INSERT INTO public.auth_permission VALUES (394, 'Can change season answer', 99, 'change_seasonanswer');
INSERT INTO public.auth_permission VALUES (395, 'Can delete season answer', 99, 'delete_seasonanswer');
INSERT INTO public.auth_permission VALUES (396, 'Can view season answer', 99, 'view_seasonanswer');
INSERT INTO public.auth_permission VALUES (397, 'Can add historical sign', 100, 'add_historicalsign');
INSERT INTO public.auth_permission VALUES (398, 'Can change historical sign', 100, 'change_historicalsign');
INSERT INTO public.auth_permission VALUES (399, 'Can delete historical sign', 100, 'delete_historicalsign');
INSERT INTO public.auth_permission VALUES (400, 'Can view historical sign', 100, 'view_historicalsign');
INSERT INTO public.auth_permission VALUES (401, 'Can add sign', 101, 'add_sign');
INSERT INTO public.auth_permission VALUES (402, 'Can change sign', 101, 'change_sign');
INSERT INTO public.auth_permission VALUES (403, 'Can delete sign', 101, 'delete_sign');
INSERT INTO public.auth_permission VALUES (404, 'Can view sign', 101, 'view_sign');
INSERT INTO public.auth_permission VALUES (405, 'Can add germination trial', 102, 'add_germinationtrial');
INSERT INTO public.auth_permission VALUES (406, 'Can change germination trial', 102, 'change_germinationtrial');
INSERT INTO public.auth_permission VALUES (407, 'Can delete germination trial', 102, 'delete_germinationtrial');
INSERT INTO public.auth_permission VALUES (408, 'Can view germination trial', 102, 'view_germinationtrial');
INSERT INTO public.auth_permission VALUES (409, 'Can add historical germination trial', 103, 'add_historicalgerminationtrial');
INSERT INTO public.auth_permission VALUES (410, 'Can change historical germination trial', 103, 'change_historicalgerminationtrial');
INSERT INTO public.auth_permission VALUES (411, 'Can delete historical germination trial', 103, 'delete_historicalgerminationtrial');
INSERT INTO public.auth_permission VALUES (412, 'Can view historical germination trial', 103, 'view_historicalgerminationtrial');
INSERT INTO public.auth_permission VALUES (413, 'Can add historical trial batch', 104, 'add_historicaltrialbatch');
INSERT INTO public.auth_permission VALUES (414, 'Can change historical trial batch', 104, 'change_historicaltrialbatch');
INSERT INTO public.auth_permission VALUES (415, 'Can delete historical trial batch', 104, 'delete_historicaltrialbatch');
INSERT INTO public.auth_permission VALUES (416, 'Can view historical trial batch', 104, 'view_historicaltrialbatch');
INSERT INTO public.auth_permission VALUES (417, 'Can add trial batch', 105, 'add_trialbatch');
INSERT INTO public.auth_permission VALUES (418, 'Can change trial batch', 105, 'change_trialbatch');
INSERT INTO public.auth_permission VALUES (419, 'Can delete trial batch', 105, 'delete_trialbatch');
INSERT INTO public.auth_permission VALUES (420, 'Can view trial batch', 105, 'view_trialbatch');
INSERT INTO public.auth_permission VALUES (421, 'Can add historical trial count', 106, 'add_historicaltrialcount');
INSERT INTO public.auth_permission VALUES (422, 'Can change historical trial count', 106, 'change_historicaltrialcount');
INSERT INTO public.auth_permission VALUES (423, 'Can delete historical trial count', 106, 'delete_historicaltrialcount');
INSERT INTO public.auth_permission VALUES (424, 'Can view historical trial count', 106, 'view_historicaltrialcount');
INSERT INTO public.auth_permission VALUES (425, 'Can add trial count', 107, 'add_trialcount');
INSERT INTO public.auth_permission VALUES (426, 'Can change trial count', 107, 'change_trialcount');
INSERT INTO public.auth_permission VALUES (427, 'Can delete trial count', 107, 'delete_trialcount');
INSERT INTO public.auth_permission VALUES (428, 'Can view trial count', 107, 'view_trialcount');
INSERT INTO public.auth_permission VALUES (429, 'Can add incoming archive', 108, 'add_incomingarchive');
INSERT INTO public.auth_permission VALUES (430, 'Can change incoming archive', 108, 'change_incomingarchive');
INSERT INTO public.auth_permission VALUES (431, 'Can delete incoming archive', 108, 'delete_incomingarchive');
INSERT INTO public.auth_permission VALUES (432, 'Can view incoming archive', 108, 'view_incomingarchive');
INSERT INTO public.auth_permission VALUES (433, 'Can add archive part', 109, 'add_archivepart');
INSERT INTO public.auth_permission VALUES (434, 'Can change archive part', 109, 'change_archivepart');
INSERT INTO public.auth_permission VALUES (435, 'Can delete archive part', 109, 'delete_archivepart');
INSERT INTO public.auth_permission VALUES (436, 'Can view archive part', 109, 'view_archivepart');
INSERT INTO public.auth_permission VALUES (437, 'Can add digest wish', 110, 'add_digestwish');
INSERT INTO public.auth_permission VALUES (438, 'Can change digest wish', 110, 'change_digestwish');
INSERT INTO public.auth_permission VALUES (439, 'Can delete digest wish', 110, 'delete_digestwish');
INSERT INTO public.auth_permission VALUES (440, 'Can view digest wish', 110, 'view_digestwish');
INSERT INTO public.auth_permission VALUES (441, 'Can add answer', 111, 'add_answer');
INSERT INTO public.auth_permission VALUES (442, 'Can change answer', 111, 'change_answer');
INSERT INTO public.auth_permission VALUES (443, 'Can delete answer', 111, 'delete_answer');
INSERT INTO public.auth_permission VALUES (444, 'Can view answer', 111, 'view_answer');
INSERT INTO public.auth_permission VALUES (445, 'Can add backup', 112, 'add_backup');
INSERT INTO public.auth_permission VALUES (446, 'Can change backup', 112, 'change_backup');
INSERT INTO public.auth_permission VALUES (447, 'Can delete backup', 112, 'delete_backup');
INSERT INTO public.auth_permission VALUES (448, 'Can view backup', 112, 'view_backup');
INSERT INTO public.auth_permission VALUES (449, 'Can add alert', 113, 'add_alert');
INSERT INTO public.auth_permission VALUES (450, 'Can change alert', 113, 'change_alert');
INSERT INTO public.auth_permission VALUES (451, 'Can delete alert', 113, 'delete_alert');
INSERT INTO public.auth_permission VALUES (452, 'Can view alert', 113, 'view_alert');
INSERT INTO public.django_content_type VALUES (1, 'auth', 'permission');
INSERT INTO public.django_content_type VALUES (2, 'auth', 'group');
INSERT INTO public.django_content_type VALUES (3, 'contenttypes', 'contenttype');
INSERT INTO public.django_content_type VALUES (4, 'sessions', 'session');
INSERT INTO public.django_content_type VALUES (5, 'account', 'emailaddress');
INSERT INTO public.django_content_type VALUES (6, 'account', 'emailconfirmation');
INSERT INTO public.django_content_type VALUES (7, 'mfa', 'authenticator');
INSERT INTO public.django_content_type VALUES (8, 'usersessions', 'usersession');
INSERT INTO public.django_content_type VALUES (9, 'axes', 'accessattempt');
INSERT INTO public.django_content_type VALUES (10, 'axes', 'accesslog');
INSERT INTO public.django_content_type VALUES (11, 'axes', 'accessfailurelog');
INSERT INTO public.django_content_type VALUES (12, 'axes', 'accessattemptexpiration');
INSERT INTO public.django_content_type VALUES (13, 'procrastinate', 'procrastinateevent');
INSERT INTO public.django_content_type VALUES (14, 'procrastinate', 'procrastinatejob');
INSERT INTO public.django_content_type VALUES (15, 'procrastinate', 'procrastinateperiodicdefer');
INSERT INTO public.django_content_type VALUES (16, 'procrastinate', 'procrastinateworker');
INSERT INTO public.django_content_type VALUES (17, 'work', 'heartbeat');
INSERT INTO public.django_content_type VALUES (18, 'work', 'failure');
INSERT INTO public.django_content_type VALUES (19, 'work', 'worked');
INSERT INTO public.django_content_type VALUES (20, 'gardens', 'garden');
INSERT INTO public.django_content_type VALUES (21, 'gardens', 'user');
INSERT INTO public.django_content_type VALUES (22, 'gardens', 'invitation');
INSERT INTO public.django_content_type VALUES (23, 'gardens', 'membership');
INSERT INTO public.django_content_type VALUES (24, 'places', 'cover');
INSERT INTO public.django_content_type VALUES (25, 'places', 'historicalcover');
INSERT INTO public.django_content_type VALUES (26, 'places', 'historicalplace');
INSERT INTO public.django_content_type VALUES (27, 'places', 'place');
INSERT INTO public.django_content_type VALUES (28, 'places', 'operation');
INSERT INTO public.django_content_type VALUES (29, 'places', 'hotbed');
INSERT INTO public.django_content_type VALUES (30, 'places', 'historicaloperation');
INSERT INTO public.django_content_type VALUES (31, 'places', 'historicalhotbed');
INSERT INTO public.django_content_type VALUES (32, 'places', 'historicalcoverperiod');
INSERT INTO public.django_content_type VALUES (33, 'places', 'coverperiod');
INSERT INTO public.django_content_type VALUES (34, 'places', 'heatperiod');
INSERT INTO public.django_content_type VALUES (35, 'places', 'heattest');
INSERT INTO public.django_content_type VALUES (36, 'places', 'historicalheatperiod');
INSERT INTO public.django_content_type VALUES (37, 'places', 'historicalheattest');
INSERT INTO public.django_content_type VALUES (38, 'places', 'historicalhotbedfill');
INSERT INTO public.django_content_type VALUES (39, 'places', 'historicalhotbednote');
INSERT INTO public.django_content_type VALUES (40, 'places', 'historicallamp');
INSERT INTO public.django_content_type VALUES (41, 'places', 'historicalroom');
INSERT INTO public.django_content_type VALUES (42, 'places', 'hotbedfill');
INSERT INTO public.django_content_type VALUES (43, 'places', 'hotbednote');
INSERT INTO public.django_content_type VALUES (44, 'places', 'lamp');
INSERT INTO public.django_content_type VALUES (45, 'places', 'room');
INSERT INTO public.django_content_type VALUES (46, 'places', 'historicalroomair');
INSERT INTO public.django_content_type VALUES (47, 'places', 'roomair');
INSERT INTO public.django_content_type VALUES (48, 'places', 'coverdamage');
INSERT INTO public.django_content_type VALUES (49, 'places', 'historicalhotbedtray');
INSERT INTO public.django_content_type VALUES (50, 'places', 'hotbedtray');
INSERT INTO public.django_content_type VALUES (51, 'places', 'historicalbenchcheck');
INSERT INTO public.django_content_type VALUES (52, 'places', 'benchcheck');
INSERT INTO public.django_content_type VALUES (53, 'places', 'historicaltubertray');
INSERT INTO public.django_content_type VALUES (54, 'places', 'tubertray');
INSERT INTO public.django_content_type VALUES (55, 'seed', 'cropchoice');
INSERT INTO public.django_content_type VALUES (56, 'seed', 'packet');
INSERT INTO public.django_content_type VALUES (57, 'weather', 'historicaldailyweather');
INSERT INTO public.django_content_type VALUES (58, 'weather', 'weatherreport');
INSERT INTO public.django_content_type VALUES (59, 'weather', 'dailyweather');
INSERT INTO public.django_content_type VALUES (60, 'weather', 'providerstate');
INSERT INTO public.django_content_type VALUES (61, 'weather', 'weathercell');
INSERT INTO public.django_content_type VALUES (62, 'loggers', 'device');
INSERT INTO public.django_content_type VALUES (63, 'loggers', 'probe');
INSERT INTO public.django_content_type VALUES (64, 'loggers', 'loggedreading');
INSERT INTO public.django_content_type VALUES (65, 'loggers', 'loggedhour');
INSERT INTO public.django_content_type VALUES (66, 'loggers', 'refusedmessage');
INSERT INTO public.django_content_type VALUES (67, 'loggers', 'messagemapping');
INSERT INTO public.django_content_type VALUES (68, 'readings', 'historicalvisit');
INSERT INTO public.django_content_type VALUES (69, 'readings', 'incomingfile');
INSERT INTO public.django_content_type VALUES (70, 'readings', 'visit');
INSERT INTO public.django_content_type VALUES (71, 'readings', 'reading');
INSERT INTO public.django_content_type VALUES (72, 'readings', 'historicalreading');
INSERT INTO public.django_content_type VALUES (73, 'readings', 'filesource');
INSERT INTO public.django_content_type VALUES (74, 'readings', 'watchedfile');
INSERT INTO public.django_content_type VALUES (75, 'sowings', 'historicalsowing');
INSERT INTO public.django_content_type VALUES (76, 'sowings', 'sowing');
INSERT INTO public.django_content_type VALUES (77, 'sowings', 'intention');
INSERT INTO public.django_content_type VALUES (78, 'sowings', 'historicalintention');
INSERT INTO public.django_content_type VALUES (79, 'sowings', 'historicalcount');
INSERT INTO public.django_content_type VALUES (80, 'sowings', 'count');
INSERT INTO public.django_content_type VALUES (81, 'sowings', 'historicalstep');
INSERT INTO public.django_content_type VALUES (82, 'sowings', 'step');
INSERT INTO public.django_content_type VALUES (83, 'plants', 'bedshape');
INSERT INTO public.django_content_type VALUES (84, 'plants', 'historicalbedshape');
INSERT INTO public.django_content_type VALUES (85, 'plants', 'historicalplanting');
INSERT INTO public.django_content_type VALUES (86, 'plants', 'planting');
INSERT INTO public.django_content_type VALUES (87, 'plants', 'plantevent');
INSERT INTO public.django_content_type VALUES (88, 'plants', 'historicalplantevent');
INSERT INTO public.django_content_type VALUES (89, 'plants', 'savedseed');
INSERT INTO public.django_content_type VALUES (90, 'forecasts', 'forecast');
INSERT INTO public.django_content_type VALUES (91, 'forecasts', 'modelsnapshot');
INSERT INTO public.django_content_type VALUES (92, 'forecasts', 'cropoutlook');
INSERT INTO public.django_content_type VALUES (93, 'forecasts', 'windowchange');
INSERT INTO public.django_content_type VALUES (94, 'forecasts', 'soilyear');
INSERT INTO public.django_content_type VALUES (95, 'windows', 'calendarlink');
INSERT INTO public.django_content_type VALUES (96, 'covers', 'covertrial');
INSERT INTO public.django_content_type VALUES (97, 'covers', 'historicalcovertrial');
INSERT INTO public.django_content_type VALUES (98, 'covers', 'bedanswer');
INSERT INTO public.django_content_type VALUES (99, 'covers', 'seasonanswer');
INSERT INTO public.django_content_type VALUES (100, 'years', 'historicalsign');
INSERT INTO public.django_content_type VALUES (101, 'years', 'sign');
INSERT INTO public.django_content_type VALUES (102, 'trials', 'germinationtrial');
INSERT INTO public.django_content_type VALUES (103, 'trials', 'historicalgerminationtrial');
INSERT INTO public.django_content_type VALUES (104, 'trials', 'historicaltrialbatch');
INSERT INTO public.django_content_type VALUES (105, 'trials', 'trialbatch');
INSERT INTO public.django_content_type VALUES (106, 'trials', 'historicaltrialcount');
INSERT INTO public.django_content_type VALUES (107, 'trials', 'trialcount');
INSERT INTO public.django_content_type VALUES (108, 'records', 'incomingarchive');
INSERT INTO public.django_content_type VALUES (109, 'records', 'archivepart');
INSERT INTO public.django_content_type VALUES (110, 'today', 'digestwish');
INSERT INTO public.django_content_type VALUES (111, 'today', 'answer');
INSERT INTO public.django_content_type VALUES (112, 'upkeep', 'backup');
INSERT INTO public.django_content_type VALUES (113, 'upkeep', 'alert');
INSERT INTO public.django_migrations VALUES (1, 'contenttypes', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (2, 'contenttypes', '0002_remove_content_type_name', now());
INSERT INTO public.django_migrations VALUES (3, 'auth', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (4, 'auth', '0002_alter_permission_name_max_length', now());
INSERT INTO public.django_migrations VALUES (5, 'auth', '0003_alter_user_email_max_length', now());
INSERT INTO public.django_migrations VALUES (6, 'auth', '0004_alter_user_username_opts', now());
INSERT INTO public.django_migrations VALUES (7, 'auth', '0005_alter_user_last_login_null', now());
INSERT INTO public.django_migrations VALUES (8, 'auth', '0006_require_contenttypes_0002', now());
INSERT INTO public.django_migrations VALUES (9, 'auth', '0007_alter_validators_add_error_messages', now());
INSERT INTO public.django_migrations VALUES (10, 'auth', '0008_alter_user_username_max_length', now());
INSERT INTO public.django_migrations VALUES (11, 'auth', '0009_alter_user_last_name_max_length', now());
INSERT INTO public.django_migrations VALUES (12, 'auth', '0010_alter_group_name_max_length', now());
INSERT INTO public.django_migrations VALUES (13, 'auth', '0011_update_proxy_permissions', now());
INSERT INTO public.django_migrations VALUES (14, 'auth', '0012_alter_user_first_name_max_length', now());
INSERT INTO public.django_migrations VALUES (15, 'gardens', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (16, 'account', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (17, 'account', '0002_email_max_length', now());
INSERT INTO public.django_migrations VALUES (18, 'account', '0003_alter_emailaddress_create_unique_verified_email', now());
INSERT INTO public.django_migrations VALUES (19, 'account', '0004_alter_emailaddress_drop_unique_email', now());
INSERT INTO public.django_migrations VALUES (20, 'account', '0005_emailaddress_idx_upper_email', now());
INSERT INTO public.django_migrations VALUES (21, 'account', '0006_emailaddress_lower', now());
INSERT INTO public.django_migrations VALUES (22, 'account', '0007_emailaddress_idx_email', now());
INSERT INTO public.django_migrations VALUES (23, 'account', '0008_emailaddress_unique_primary_email_fixup', now());
INSERT INTO public.django_migrations VALUES (24, 'account', '0009_emailaddress_unique_primary_email', now());
INSERT INTO public.django_migrations VALUES (25, 'axes', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (26, 'axes', '0002_auto_20151217_2044', now());
INSERT INTO public.django_migrations VALUES (27, 'axes', '0003_auto_20160322_0929', now());
INSERT INTO public.django_migrations VALUES (28, 'axes', '0004_auto_20181024_1538', now());
INSERT INTO public.django_migrations VALUES (29, 'axes', '0005_remove_accessattempt_trusted', now());
INSERT INTO public.django_migrations VALUES (30, 'axes', '0006_remove_accesslog_trusted', now());
INSERT INTO public.django_migrations VALUES (31, 'axes', '0007_alter_accessattempt_unique_together', now());
INSERT INTO public.django_migrations VALUES (32, 'axes', '0008_accessfailurelog', now());
INSERT INTO public.django_migrations VALUES (33, 'axes', '0009_add_session_hash', now());
INSERT INTO public.django_migrations VALUES (34, 'axes', '0010_accessattemptexpiration', now());
INSERT INTO public.django_migrations VALUES (35, 'places', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (36, 'covers', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (37, 'gardens', '0002_names_with_blanks_and_the_far_north', now());
INSERT INTO public.django_migrations VALUES (38, 'gardens', '0003_bench', now());
INSERT INTO public.django_migrations VALUES (39, 'places', '0002_bench', now());
INSERT INTO public.django_migrations VALUES (40, 'forecasts', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (41, 'forecasts', '0002_soil_years', now());
INSERT INTO public.django_migrations VALUES (42, 'forecasts', '0003_remembered', now());
INSERT INTO public.django_migrations VALUES (43, 'forecasts', '0004_kept_energy', now());
INSERT INTO public.django_migrations VALUES (44, 'gardens', '0004_helper_adds_entries', now());
INSERT INTO public.django_migrations VALUES (45, 'gardens', '0005_height_of_the_ground', now());
INSERT INTO public.django_migrations VALUES (46, 'gardens', '0006_plain_labels', now());
INSERT INTO public.django_migrations VALUES (47, 'gardens', '0007_rules_for_heat', now());
INSERT INTO public.django_migrations VALUES (48, 'places', '0003_box_heights', now());
INSERT INTO public.django_migrations VALUES (49, 'places', '0004_cover_damage', now());
INSERT INTO public.django_migrations VALUES (50, 'loggers', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (51, 'loggers', '0002_probe_in_a_room', now());
INSERT INTO public.django_migrations VALUES (52, 'loggers', '0003_message_mappings', now());
INSERT INTO public.django_migrations VALUES (53, 'mfa', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (54, 'mfa', '0002_authenticator_timestamps', now());
INSERT INTO public.django_migrations VALUES (55, 'mfa', '0003_authenticator_type_uniq', now());
INSERT INTO public.django_migrations VALUES (56, 'places', '0005_trays_on_hotbeds', now());
INSERT INTO public.django_migrations VALUES (57, 'places', '0006_cover_over_part_of_a_bed', now());
INSERT INTO public.django_migrations VALUES (58, 'places', '0007_plain_labels', now());
INSERT INTO public.django_migrations VALUES (59, 'places', '0008_bench_checks', now());
INSERT INTO public.django_migrations VALUES (60, 'places', '0009_tuber_trays', now());
INSERT INTO public.django_migrations VALUES (61, 'seed', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (62, 'sowings', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (63, 'sowings', '0002_bench', now());
INSERT INTO public.django_migrations VALUES (64, 'plants', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (65, 'plants', '0002_saved_seed', now());
INSERT INTO public.django_migrations VALUES (66, 'plants', '0003_plain_labels', now());
INSERT INTO public.django_migrations VALUES (67, 'procrastinate', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (68, 'procrastinate', '0002_drop_started_at_column', now());
INSERT INTO public.django_migrations VALUES (69, 'procrastinate', '0003_drop_started_at_column', now());
INSERT INTO public.django_migrations VALUES (70, 'procrastinate', '0004_drop_procrastinate_version_table', now());
INSERT INTO public.django_migrations VALUES (71, 'procrastinate', '0005_fix_procrastinate_fetch_job', now());
INSERT INTO public.django_migrations VALUES (72, 'procrastinate', '0006_fix_trigger_status_events_insert', now());
INSERT INTO public.django_migrations VALUES (73, 'procrastinate', '0007_add_queueing_lock_column', now());
INSERT INTO public.django_migrations VALUES (74, 'procrastinate', '0008_close_fetch_job_race_condition', now());
INSERT INTO public.django_migrations VALUES (75, 'procrastinate', '0009_add_defer_job_function', now());
INSERT INTO public.django_migrations VALUES (76, 'procrastinate', '0010_add_procrastinate_periodic_defers', now());
INSERT INTO public.django_migrations VALUES (77, 'procrastinate', '0011_add_foreign_key_index', now());
INSERT INTO public.django_migrations VALUES (78, 'procrastinate', '0012_add_locks_to_periodic_defer', now());
INSERT INTO public.django_migrations VALUES (79, 'procrastinate', '0013_fix_procrastinate_defer_periodic_job', now());
INSERT INTO public.django_migrations VALUES (80, 'procrastinate', '0014_add_finish_job_and_retry_job_functions', now());
INSERT INTO public.django_migrations VALUES (81, 'procrastinate', '0015_add_trigger_on_job_deletion', now());
INSERT INTO public.django_migrations VALUES (82, 'procrastinate', '0016_delete_finished_jobs', now());
INSERT INTO public.django_migrations VALUES (83, 'procrastinate', '0017_add_checks_to_finish_job', now());
INSERT INTO public.django_migrations VALUES (84, 'procrastinate', '0018_add_checks_to_retry_job', now());
INSERT INTO public.django_migrations VALUES (85, 'procrastinate', '0019_fix_finish_job_compat_issue', now());
INSERT INTO public.django_migrations VALUES (86, 'procrastinate', '0020_add_index_on_procrastinate_jobs', now());
INSERT INTO public.django_migrations VALUES (87, 'procrastinate', '0021_add_kwargs_to_defer_periodic_job', now());
INSERT INTO public.django_migrations VALUES (88, 'procrastinate', '0022_null_locks_excluded', now());
INSERT INTO public.django_migrations VALUES (89, 'procrastinate', '0023_remove_old_finish_job_function', now());
INSERT INTO public.django_migrations VALUES (90, 'procrastinate', '0024_job_id_bigint', now());
INSERT INTO public.django_migrations VALUES (91, 'procrastinate', '0025_add_models', now());
INSERT INTO public.django_migrations VALUES (92, 'procrastinate', '0026_add_job_priority', now());
INSERT INTO public.django_migrations VALUES (93, 'procrastinate', '0027_add_periodic_job_priority', now());
INSERT INTO public.django_migrations VALUES (94, 'procrastinate', '0028_add_cancel_states', now());
INSERT INTO public.django_migrations VALUES (95, 'procrastinate', '0029_add_additional_params_to_retry_job', now());
INSERT INTO public.django_migrations VALUES (96, 'procrastinate', '0030_alter_procrastinateevent_options', now());
INSERT INTO public.django_migrations VALUES (97, 'procrastinate', '0031_add_indexes_for_fetch_job', now());
INSERT INTO public.django_migrations VALUES (98, 'procrastinate', '0032_pre_cancel_notification', now());
INSERT INTO public.django_migrations VALUES (99, 'procrastinate', '0033_post_cancel_notification', now());
INSERT INTO public.django_migrations VALUES (100, 'procrastinate', '0034_pre_add_heartbeat', now());
INSERT INTO public.django_migrations VALUES (101, 'procrastinate', '0035_post_add_heartbeat', now());
INSERT INTO public.django_migrations VALUES (102, 'procrastinate', '0036_add_worker_model', now());
INSERT INTO public.django_migrations VALUES (103, 'procrastinate', '0037_pre_batch_defer_jobs', now());
INSERT INTO public.django_migrations VALUES (104, 'procrastinate', '0038_post_batch_defer_jobs', now());
INSERT INTO public.django_migrations VALUES (105, 'procrastinate', '0039_pre_priority_lock_fetch_job', now());
INSERT INTO public.django_migrations VALUES (106, 'procrastinate', '0040_pre_retry_failed_job', now());
INSERT INTO public.django_migrations VALUES (107, 'procrastinate', '0041_post_retry_failed_job', now());
INSERT INTO public.django_migrations VALUES (108, 'readings', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (109, 'readings', '0002_watched_files', now());
INSERT INTO public.django_migrations VALUES (110, 'readings', '0003_plain_labels', now());
INSERT INTO public.django_migrations VALUES (111, 'records', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (112, 'records', '0002_plain_labels', now());
INSERT INTO public.django_migrations VALUES (113, 'sessions', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (114, 'sowings', '0003_plain_labels', now());
INSERT INTO public.django_migrations VALUES (115, 'sowings', '0004_rules_for_heat', now());
INSERT INTO public.django_migrations VALUES (116, 'today', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (117, 'today', '0002_answer_period', now());
INSERT INTO public.django_migrations VALUES (118, 'today', '0003_step', now());
INSERT INTO public.django_migrations VALUES (119, 'today', '0004_planting', now());
INSERT INTO public.django_migrations VALUES (120, 'today', '0005_confirmed_addresses', now());
INSERT INTO public.django_migrations VALUES (121, 'today', '0006_plain_labels', now());
INSERT INTO public.django_migrations VALUES (122, 'today', '0007_tubers', now());
INSERT INTO public.django_migrations VALUES (123, 'trials', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (124, 'upkeep', '0001_backups', now());
INSERT INTO public.django_migrations VALUES (125, 'upkeep', '0002_alerts', now());
INSERT INTO public.django_migrations VALUES (126, 'usersessions', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (127, 'weather', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (128, 'weather', '0002_providers', now());
INSERT INTO public.django_migrations VALUES (129, 'weather', '0003_simulated', now());
INSERT INTO public.django_migrations VALUES (130, 'windows', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (131, 'work', '0001_initial', now());
INSERT INTO public.django_migrations VALUES (132, 'work', '0002_worked', now());
INSERT INTO public.django_migrations VALUES (133, 'years', '0001_initial', now());
SELECT pg_catalog.setval('public.account_emailaddress_id_seq', 1, false);
SELECT pg_catalog.setval('public.account_emailconfirmation_id_seq', 1, false);
SELECT pg_catalog.setval('public.auth_group_id_seq', 1, false);
SELECT pg_catalog.setval('public.auth_group_permissions_id_seq', 1, false);
SELECT pg_catalog.setval('public.auth_permission_id_seq', 452, true);
SELECT pg_catalog.setval('public.axes_accessattempt_id_seq', 1, false);
SELECT pg_catalog.setval('public.axes_accessfailurelog_id_seq', 1, false);
SELECT pg_catalog.setval('public.axes_accesslog_id_seq', 1, false);
SELECT pg_catalog.setval('public.covers_bedanswer_id_seq', 1, false);
SELECT pg_catalog.setval('public.covers_covertrial_id_seq', 1, false);
SELECT pg_catalog.setval('public.covers_historicalcovertrial_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.covers_seasonanswer_id_seq', 1, false);
SELECT pg_catalog.setval('public.django_content_type_id_seq', 113, true);
SELECT pg_catalog.setval('public.django_migrations_id_seq', 133, true);
SELECT pg_catalog.setval('public.forecasts_cropoutlook_id_seq', 1, false);
SELECT pg_catalog.setval('public.forecasts_forecast_id_seq', 1, false);
SELECT pg_catalog.setval('public.forecasts_modelsnapshot_id_seq', 1, false);
SELECT pg_catalog.setval('public.forecasts_soilyear_id_seq', 1, false);
SELECT pg_catalog.setval('public.forecasts_windowchange_id_seq', 1, false);
SELECT pg_catalog.setval('public.gardens_garden_id_seq', 1, false);
SELECT pg_catalog.setval('public.gardens_invitation_id_seq', 1, false);
SELECT pg_catalog.setval('public.gardens_membership_id_seq', 1, false);
SELECT pg_catalog.setval('public.gardens_user_groups_id_seq', 1, false);
SELECT pg_catalog.setval('public.gardens_user_id_seq', 1, false);
SELECT pg_catalog.setval('public.gardens_user_user_permissions_id_seq', 1, false);
SELECT pg_catalog.setval('public.loggers_device_id_seq', 1, false);
SELECT pg_catalog.setval('public.loggers_messagemapping_id_seq', 1, false);
SELECT pg_catalog.setval('public.loggers_probe_id_seq', 1, false);
SELECT pg_catalog.setval('public.loggers_refusedmessage_id_seq', 1, false);
SELECT pg_catalog.setval('public.mfa_authenticator_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_benchcheck_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_cover_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_coverdamage_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_coverperiod_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_heatperiod_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_heattest_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalbenchcheck_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalcover_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalcoverperiod_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalheatperiod_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalheattest_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalhotbed_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalhotbedfill_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalhotbednote_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalhotbedtray_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicallamp_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicaloperation_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalplace_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalroom_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicalroomair_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_historicaltubertray_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_hotbed_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_hotbedfill_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_hotbednote_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_hotbedtray_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_lamp_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_operation_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_place_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_room_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_roomair_id_seq', 1, false);
SELECT pg_catalog.setval('public.places_tubertray_id_seq', 1, false);
SELECT pg_catalog.setval('public.plants_bedshape_id_seq', 1, false);
SELECT pg_catalog.setval('public.plants_historicalbedshape_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.plants_historicalplantevent_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.plants_historicalplanting_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.plants_plantevent_id_seq', 1, false);
SELECT pg_catalog.setval('public.plants_planting_id_seq', 1, false);
SELECT pg_catalog.setval('public.plants_savedseed_id_seq', 1, false);
SELECT pg_catalog.setval('public.procrastinate_events_id_seq', 1, false);
SELECT pg_catalog.setval('public.procrastinate_jobs_id_seq', 1, false);
SELECT pg_catalog.setval('public.procrastinate_periodic_defers_id_seq', 1, false);
SELECT pg_catalog.setval('public.procrastinate_workers_id_seq', 1, false);
SELECT pg_catalog.setval('public.readings_filesource_id_seq', 1, false);
SELECT pg_catalog.setval('public.readings_historicalreading_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.readings_historicalvisit_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.readings_incomingfile_id_seq', 1, false);
SELECT pg_catalog.setval('public.readings_reading_id_seq', 1, false);
SELECT pg_catalog.setval('public.readings_visit_id_seq', 1, false);
SELECT pg_catalog.setval('public.readings_visit_operations_id_seq', 1, false);
SELECT pg_catalog.setval('public.readings_watchedfile_id_seq', 1, false);
SELECT pg_catalog.setval('public.records_archivepart_id_seq', 1, false);
SELECT pg_catalog.setval('public.records_incomingarchive_id_seq', 1, false);
SELECT pg_catalog.setval('public.seed_cropchoice_id_seq', 1, false);
SELECT pg_catalog.setval('public.seed_packet_id_seq', 1, false);
SELECT pg_catalog.setval('public.sowings_count_id_seq', 1, false);
SELECT pg_catalog.setval('public.sowings_historicalcount_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.sowings_historicalintention_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.sowings_historicalsowing_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.sowings_historicalstep_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.sowings_intention_id_seq', 1, false);
SELECT pg_catalog.setval('public.sowings_sowing_id_seq', 1, false);
SELECT pg_catalog.setval('public.sowings_step_id_seq', 1, false);
SELECT pg_catalog.setval('public.today_answer_id_seq', 1, false);
SELECT pg_catalog.setval('public.today_digestwish_id_seq', 1, false);
SELECT pg_catalog.setval('public.trials_germinationtrial_id_seq', 1, false);
SELECT pg_catalog.setval('public.trials_historicalgerminationtrial_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.trials_historicaltrialbatch_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.trials_historicaltrialcount_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.trials_trialbatch_id_seq', 1, false);
SELECT pg_catalog.setval('public.trials_trialcount_id_seq', 1, false);
SELECT pg_catalog.setval('public.upkeep_alert_id_seq', 1, false);
SELECT pg_catalog.setval('public.upkeep_backup_id_seq', 1, false);
SELECT pg_catalog.setval('public.usersessions_usersession_id_seq', 1, false);
SELECT pg_catalog.setval('public.weather_dailyweather_id_seq', 1, false);
SELECT pg_catalog.setval('public.weather_historicaldailyweather_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.weather_providerstate_id_seq', 1, false);
SELECT pg_catalog.setval('public.weather_weathercell_id_seq', 1, false);
SELECT pg_catalog.setval('public.weather_weatherreport_id_seq', 1, false);
SELECT pg_catalog.setval('public.windows_calendarlink_id_seq', 1, false);
SELECT pg_catalog.setval('public.work_failure_id_seq', 1, false);
SELECT pg_catalog.setval('public.work_heartbeat_id_seq', 1, false);
SELECT pg_catalog.setval('public.work_worked_id_seq', 1, false);
SELECT pg_catalog.setval('public.years_historicalsign_history_id_seq', 1, false);
SELECT pg_catalog.setval('public.years_sign_id_seq', 1, false);
ALTER TABLE ONLY public.loggers_messagemapping
    ADD CONSTRAINT a_topic_is_read_in_one_way UNIQUE (device_id, topic);
ALTER TABLE ONLY public.account_emailaddress
    ADD CONSTRAINT account_emailaddress_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.account_emailaddress
    ADD CONSTRAINT account_emailaddress_user_id_email_987c8728_uniq UNIQUE (user_id, email);
ALTER TABLE ONLY public.account_emailconfirmation
    ADD CONSTRAINT account_emailconfirmation_key_key UNIQUE (key);
ALTER TABLE ONLY public.account_emailconfirmation
    ADD CONSTRAINT account_emailconfirmation_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.auth_group
    ADD CONSTRAINT auth_group_name_key UNIQUE (name);
ALTER TABLE ONLY public.auth_group_permissions
    ADD CONSTRAINT auth_group_permissions_group_id_permission_id_0cd325b0_uniq UNIQUE (group_id, permission_id);
ALTER TABLE ONLY public.auth_group_permissions
    ADD CONSTRAINT auth_group_permissions_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.auth_group
    ADD CONSTRAINT auth_group_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.auth_permission
    ADD CONSTRAINT auth_permission_content_type_id_codename_01ab375a_uniq UNIQUE (content_type_id, codename);
ALTER TABLE ONLY public.auth_permission
    ADD CONSTRAINT auth_permission_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.axes_accessattempt
    ADD CONSTRAINT axes_accessattempt_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.axes_accessattempt
    ADD CONSTRAINT axes_accessattempt_username_ip_address_user_agent_8ea22282_uniq UNIQUE (username, ip_address, user_agent);
ALTER TABLE ONLY public.axes_accessattemptexpiration
    ADD CONSTRAINT axes_accessattemptexpiration_pkey PRIMARY KEY (access_attempt_id);
ALTER TABLE ONLY public.axes_accessfailurelog
    ADD CONSTRAINT axes_accessfailurelog_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.axes_accesslog
    ADD CONSTRAINT axes_accesslog_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.covers_bedanswer
    ADD CONSTRAINT covers_bedanswer_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.covers_covertrial
    ADD CONSTRAINT covers_covertrial_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.covers_historicalcovertrial
    ADD CONSTRAINT covers_historicalcovertrial_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.covers_seasonanswer
    ADD CONSTRAINT covers_seasonanswer_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.django_content_type
    ADD CONSTRAINT django_content_type_app_label_model_76bd3d3b_uniq UNIQUE (app_label, model);
ALTER TABLE ONLY public.django_content_type
    ADD CONSTRAINT django_content_type_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.django_migrations
    ADD CONSTRAINT django_migrations_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.django_session
    ADD CONSTRAINT django_session_pkey PRIMARY KEY (session_key);
ALTER TABLE ONLY public.forecasts_cropoutlook
    ADD CONSTRAINT forecasts_cropoutlook_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.forecasts_forecast
    ADD CONSTRAINT forecasts_forecast_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.forecasts_forecast
    ADD CONSTRAINT forecasts_forecast_place_id_key UNIQUE (place_id);
ALTER TABLE ONLY public.forecasts_modelsnapshot
    ADD CONSTRAINT forecasts_modelsnapshot_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.forecasts_modelsnapshot
    ADD CONSTRAINT forecasts_modelsnapshot_place_id_key UNIQUE (place_id);
ALTER TABLE ONLY public.forecasts_soilyear
    ADD CONSTRAINT forecasts_soilyear_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.forecasts_windowchange
    ADD CONSTRAINT forecasts_windowchange_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.gardens_garden
    ADD CONSTRAINT gardens_garden_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.gardens_invitation
    ADD CONSTRAINT gardens_invitation_fingerprint_key UNIQUE (fingerprint);
ALTER TABLE ONLY public.gardens_invitation
    ADD CONSTRAINT gardens_invitation_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.gardens_membership
    ADD CONSTRAINT gardens_membership_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.gardens_user_groups
    ADD CONSTRAINT gardens_user_groups_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.gardens_user_groups
    ADD CONSTRAINT gardens_user_groups_user_id_group_id_61274961_uniq UNIQUE (user_id, group_id);
ALTER TABLE ONLY public.gardens_user
    ADD CONSTRAINT gardens_user_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.gardens_user_user_permissions
    ADD CONSTRAINT gardens_user_user_permis_user_id_permission_id_39cb0edf_uniq UNIQUE (user_id, permission_id);
ALTER TABLE ONLY public.gardens_user_user_permissions
    ADD CONSTRAINT gardens_user_user_permissions_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.gardens_user
    ADD CONSTRAINT gardens_user_username_key UNIQUE (username);
ALTER TABLE ONLY public.loggers_device
    ADD CONSTRAINT loggers_device_fingerprint_key UNIQUE (fingerprint);
ALTER TABLE ONLY public.loggers_device
    ADD CONSTRAINT loggers_device_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.loggers_hour
    ADD CONSTRAINT loggers_hour_pkey PRIMARY KEY (probe_id, hour);
ALTER TABLE ONLY public.loggers_messagemapping
    ADD CONSTRAINT loggers_messagemapping_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.loggers_probe
    ADD CONSTRAINT loggers_probe_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.loggers_reading
    ADD CONSTRAINT loggers_reading_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2015
    ADD CONSTRAINT loggers_reading_2015_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2016
    ADD CONSTRAINT loggers_reading_2016_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2017
    ADD CONSTRAINT loggers_reading_2017_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2018
    ADD CONSTRAINT loggers_reading_2018_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2019
    ADD CONSTRAINT loggers_reading_2019_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2020
    ADD CONSTRAINT loggers_reading_2020_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2021
    ADD CONSTRAINT loggers_reading_2021_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2022
    ADD CONSTRAINT loggers_reading_2022_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2023
    ADD CONSTRAINT loggers_reading_2023_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2024
    ADD CONSTRAINT loggers_reading_2024_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2025
    ADD CONSTRAINT loggers_reading_2025_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2026
    ADD CONSTRAINT loggers_reading_2026_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2027
    ADD CONSTRAINT loggers_reading_2027_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2028
    ADD CONSTRAINT loggers_reading_2028_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2029
    ADD CONSTRAINT loggers_reading_2029_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2030
    ADD CONSTRAINT loggers_reading_2030_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2031
    ADD CONSTRAINT loggers_reading_2031_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2032
    ADD CONSTRAINT loggers_reading_2032_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2033
    ADD CONSTRAINT loggers_reading_2033_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2034
    ADD CONSTRAINT loggers_reading_2034_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2035
    ADD CONSTRAINT loggers_reading_2035_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2036
    ADD CONSTRAINT loggers_reading_2036_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2037
    ADD CONSTRAINT loggers_reading_2037_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2038
    ADD CONSTRAINT loggers_reading_2038_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2039
    ADD CONSTRAINT loggers_reading_2039_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2040
    ADD CONSTRAINT loggers_reading_2040_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2041
    ADD CONSTRAINT loggers_reading_2041_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2042
    ADD CONSTRAINT loggers_reading_2042_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2043
    ADD CONSTRAINT loggers_reading_2043_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2044
    ADD CONSTRAINT loggers_reading_2044_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_2045
    ADD CONSTRAINT loggers_reading_2045_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_reading_else
    ADD CONSTRAINT loggers_reading_else_pkey PRIMARY KEY (probe_id, at);
ALTER TABLE ONLY public.loggers_refusedmessage
    ADD CONSTRAINT loggers_refusedmessage_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.mfa_authenticator
    ADD CONSTRAINT mfa_authenticator_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.weather_weathercell
    ADD CONSTRAINT one_answer_a_cell UNIQUE (address, "row", "column", zone);
ALTER TABLE ONLY public.covers_bedanswer
    ADD CONSTRAINT one_answer_a_cover_and_bed UNIQUE (cover_id, place_id);
ALTER TABLE ONLY public.seed_cropchoice
    ADD CONSTRAINT one_choice_a_crop UNIQUE (garden_id, crop_key);
ALTER TABLE ONLY public.sowings_count
    ADD CONSTRAINT one_count_a_day UNIQUE (sowing_id, "on");
ALTER TABLE ONLY public.weather_dailyweather
    ADD CONSTRAINT one_line_a_day UNIQUE (garden_id, day);
ALTER TABLE ONLY public.gardens_membership
    ADD CONSTRAINT one_membership_per_person UNIQUE (garden_id, user_id);
ALTER TABLE ONLY public.readings_filesource
    ADD CONSTRAINT one_memory_a_heading UNIQUE (garden_id, kind, signature);
ALTER TABLE ONLY public.forecasts_cropoutlook
    ADD CONSTRAINT one_outlook_a_crop_and_method UNIQUE (place_id, crop_key, method);
ALTER TABLE ONLY public.records_archivepart
    ADD CONSTRAINT one_part_a_number UNIQUE (archive_id, number);
ALTER TABLE ONLY public.places_roomair
    ADD CONSTRAINT one_room_air_at_a_time UNIQUE (room_id, what, at);
ALTER TABLE ONLY public.covers_seasonanswer
    ADD CONSTRAINT one_season_a_bed_and_cover UNIQUE (place_id, cover);
ALTER TABLE ONLY public.forecasts_soilyear
    ADD CONSTRAINT one_soil_a_year UNIQUE (place_id, year);
ALTER TABLE ONLY public.work_worked
    ADD CONSTRAINT one_sum_a_day UNIQUE (garden_id, day, task);
ALTER TABLE ONLY public.places_benchcheck
    ADD CONSTRAINT one_tick_of_a_check UNIQUE (place_id, item);
ALTER TABLE ONLY public.trials_trialcount
    ADD CONSTRAINT one_trial_count_a_day UNIQUE (batch_id, "on");
ALTER TABLE ONLY public.places_benchcheck
    ADD CONSTRAINT places_benchcheck_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_cover
    ADD CONSTRAINT places_cover_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_coverdamage
    ADD CONSTRAINT places_coverdamage_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_coverperiod
    ADD CONSTRAINT places_coverperiod_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_heatperiod
    ADD CONSTRAINT places_heatperiod_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_heattest
    ADD CONSTRAINT places_heattest_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_historicalbenchcheck
    ADD CONSTRAINT places_historicalbenchcheck_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalcover
    ADD CONSTRAINT places_historicalcover_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalcoverperiod
    ADD CONSTRAINT places_historicalcoverperiod_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalheatperiod
    ADD CONSTRAINT places_historicalheatperiod_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalheattest
    ADD CONSTRAINT places_historicalheattest_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalhotbed
    ADD CONSTRAINT places_historicalhotbed_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalhotbedfill
    ADD CONSTRAINT places_historicalhotbedfill_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalhotbednote
    ADD CONSTRAINT places_historicalhotbednote_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalhotbedtray
    ADD CONSTRAINT places_historicalhotbedtray_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicallamp
    ADD CONSTRAINT places_historicallamp_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicaloperation
    ADD CONSTRAINT places_historicaloperation_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalplace
    ADD CONSTRAINT places_historicalplace_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalroom
    ADD CONSTRAINT places_historicalroom_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicalroomair
    ADD CONSTRAINT places_historicalroomair_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_historicaltubertray
    ADD CONSTRAINT places_historicaltubertray_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.places_hotbed
    ADD CONSTRAINT places_hotbed_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_hotbed
    ADD CONSTRAINT places_hotbed_place_id_key UNIQUE (place_id);
ALTER TABLE ONLY public.places_hotbedfill
    ADD CONSTRAINT places_hotbedfill_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_hotbednote
    ADD CONSTRAINT places_hotbednote_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_hotbedtray
    ADD CONSTRAINT places_hotbedtray_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_lamp
    ADD CONSTRAINT places_lamp_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_operation
    ADD CONSTRAINT places_operation_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_place
    ADD CONSTRAINT places_place_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_room
    ADD CONSTRAINT places_room_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_roomair
    ADD CONSTRAINT places_roomair_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.places_tubertray
    ADD CONSTRAINT places_tubertray_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.plants_bedshape
    ADD CONSTRAINT plants_bedshape_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.plants_bedshape
    ADD CONSTRAINT plants_bedshape_place_id_key UNIQUE (place_id);
ALTER TABLE ONLY public.plants_historicalbedshape
    ADD CONSTRAINT plants_historicalbedshape_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.plants_historicalplantevent
    ADD CONSTRAINT plants_historicalplantevent_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.plants_historicalplanting
    ADD CONSTRAINT plants_historicalplanting_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.plants_plantevent
    ADD CONSTRAINT plants_plantevent_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.plants_planting
    ADD CONSTRAINT plants_planting_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.plants_savedseed
    ADD CONSTRAINT plants_savedseed_packet_id_key UNIQUE (packet_id);
ALTER TABLE ONLY public.plants_savedseed
    ADD CONSTRAINT plants_savedseed_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.procrastinate_events
    ADD CONSTRAINT procrastinate_events_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.procrastinate_jobs
    ADD CONSTRAINT procrastinate_jobs_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.procrastinate_periodic_defers
    ADD CONSTRAINT procrastinate_periodic_defers_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.procrastinate_periodic_defers
    ADD CONSTRAINT procrastinate_periodic_defers_unique UNIQUE (task_name, periodic_id, defer_timestamp);
ALTER TABLE ONLY public.procrastinate_workers
    ADD CONSTRAINT procrastinate_workers_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.readings_filesource
    ADD CONSTRAINT readings_filesource_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.readings_historicalreading
    ADD CONSTRAINT readings_historicalreading_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.readings_historicalvisit
    ADD CONSTRAINT readings_historicalvisit_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.readings_incomingfile
    ADD CONSTRAINT readings_incomingfile_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.readings_reading
    ADD CONSTRAINT readings_reading_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.readings_visit
    ADD CONSTRAINT readings_visit_key_key UNIQUE (key);
ALTER TABLE ONLY public.readings_visit_operations
    ADD CONSTRAINT readings_visit_operations_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.readings_visit_operations
    ADD CONSTRAINT readings_visit_operations_visit_id_operation_id_7f256b7d_uniq UNIQUE (visit_id, operation_id);
ALTER TABLE ONLY public.readings_visit
    ADD CONSTRAINT readings_visit_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.readings_watchedfile
    ADD CONSTRAINT readings_watchedfile_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.records_archivepart
    ADD CONSTRAINT records_archivepart_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.records_incomingarchive
    ADD CONSTRAINT records_incomingarchive_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.seed_cropchoice
    ADD CONSTRAINT seed_cropchoice_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.seed_packet
    ADD CONSTRAINT seed_packet_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.sowings_count
    ADD CONSTRAINT sowings_count_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.sowings_historicalcount
    ADD CONSTRAINT sowings_historicalcount_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.sowings_historicalintention
    ADD CONSTRAINT sowings_historicalintention_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.sowings_historicalsowing
    ADD CONSTRAINT sowings_historicalsowing_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.sowings_historicalstep
    ADD CONSTRAINT sowings_historicalstep_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.sowings_intention
    ADD CONSTRAINT sowings_intention_made_id_key UNIQUE (made_id);
ALTER TABLE ONLY public.sowings_intention
    ADD CONSTRAINT sowings_intention_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.sowings_sowing
    ADD CONSTRAINT sowings_sowing_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.sowings_step
    ADD CONSTRAINT sowings_step_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.today_digestwish
    ADD CONSTRAINT today_digestwish_membership_id_key UNIQUE (membership_id);
ALTER TABLE ONLY public.today_digestwish
    ADD CONSTRAINT today_digestwish_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.trials_germinationtrial
    ADD CONSTRAINT trials_germinationtrial_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.trials_historicalgerminationtrial
    ADD CONSTRAINT trials_historicalgerminationtrial_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.trials_historicaltrialbatch
    ADD CONSTRAINT trials_historicaltrialbatch_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.trials_historicaltrialcount
    ADD CONSTRAINT trials_historicaltrialcount_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.trials_trialbatch
    ADD CONSTRAINT trials_trialbatch_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.trials_trialcount
    ADD CONSTRAINT trials_trialcount_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.upkeep_alert
    ADD CONSTRAINT upkeep_alert_key_key UNIQUE (key);
ALTER TABLE ONLY public.upkeep_alert
    ADD CONSTRAINT upkeep_alert_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.upkeep_backup
    ADD CONSTRAINT upkeep_backup_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.usersessions_usersession
    ADD CONSTRAINT usersessions_usersession_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.usersessions_usersession
    ADD CONSTRAINT usersessions_usersession_session_key_key UNIQUE (session_key);
ALTER TABLE ONLY public.weather_dailyweather
    ADD CONSTRAINT weather_dailyweather_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.weather_historicaldailyweather
    ADD CONSTRAINT weather_historicaldailyweather_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.weather_providerstate
    ADD CONSTRAINT weather_providerstate_address_key UNIQUE (address);
ALTER TABLE ONLY public.weather_providerstate
    ADD CONSTRAINT weather_providerstate_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.weather_weathercell
    ADD CONSTRAINT weather_weathercell_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.weather_weatherreport
    ADD CONSTRAINT weather_weatherreport_garden_id_key UNIQUE (garden_id);
ALTER TABLE ONLY public.weather_weatherreport
    ADD CONSTRAINT weather_weatherreport_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.windows_calendarlink
    ADD CONSTRAINT windows_calendarlink_membership_id_key UNIQUE (membership_id);
ALTER TABLE ONLY public.windows_calendarlink
    ADD CONSTRAINT windows_calendarlink_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.windows_calendarlink
    ADD CONSTRAINT windows_calendarlink_token_key UNIQUE (token);
ALTER TABLE ONLY public.work_failure
    ADD CONSTRAINT work_failure_key_key UNIQUE (key);
ALTER TABLE ONLY public.work_failure
    ADD CONSTRAINT work_failure_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.work_heartbeat
    ADD CONSTRAINT work_heartbeat_part_key UNIQUE (part);
ALTER TABLE ONLY public.work_heartbeat
    ADD CONSTRAINT work_heartbeat_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.work_worked
    ADD CONSTRAINT work_worked_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.years_historicalsign
    ADD CONSTRAINT years_historicalsign_pkey PRIMARY KEY (history_id);
ALTER TABLE ONLY public.years_sign
    ADD CONSTRAINT years_sign_pkey PRIMARY KEY (id);
CREATE UNIQUE INDEX a_channel_sticks_in_one_place ON public.loggers_probe USING btree (device_id, channel) WHERE (until IS NULL);
CREATE INDEX account_emailaddress_email_03be32b2 ON public.account_emailaddress USING btree (email);
CREATE INDEX account_emailaddress_email_03be32b2_like ON public.account_emailaddress USING btree (email varchar_pattern_ops);
CREATE INDEX account_emailaddress_user_id_2c513194 ON public.account_emailaddress USING btree (user_id);
CREATE INDEX account_emailconfirmation_email_address_id_5b7f8c58 ON public.account_emailconfirmation USING btree (email_address_id);
CREATE INDEX account_emailconfirmation_key_f43612bd_like ON public.account_emailconfirmation USING btree (key varchar_pattern_ops);
CREATE INDEX answer_newest ON public.today_answer USING btree (garden_id, at);
CREATE INDEX auth_group_name_a6ea08ec_like ON public.auth_group USING btree (name varchar_pattern_ops);
CREATE INDEX auth_group_permissions_group_id_b120cbf9 ON public.auth_group_permissions USING btree (group_id);
CREATE INDEX auth_group_permissions_permission_id_84c5c92e ON public.auth_group_permissions USING btree (permission_id);
CREATE INDEX auth_permission_content_type_id_2f476e4b ON public.auth_permission USING btree (content_type_id);
CREATE INDEX axes_accessattempt_ip_address_10922d9c ON public.axes_accessattempt USING btree (ip_address);
CREATE INDEX axes_accessattempt_user_agent_ad89678b ON public.axes_accessattempt USING btree (user_agent);
CREATE INDEX axes_accessattempt_user_agent_ad89678b_like ON public.axes_accessattempt USING btree (user_agent varchar_pattern_ops);
CREATE INDEX axes_accessattempt_username_3f2d4ca0 ON public.axes_accessattempt USING btree (username);
CREATE INDEX axes_accessattempt_username_3f2d4ca0_like ON public.axes_accessattempt USING btree (username varchar_pattern_ops);
CREATE INDEX axes_accessfailurelog_ip_address_2e9f5a7f ON public.axes_accessfailurelog USING btree (ip_address);
CREATE INDEX axes_accessfailurelog_user_agent_ea145dda ON public.axes_accessfailurelog USING btree (user_agent);
CREATE INDEX axes_accessfailurelog_user_agent_ea145dda_like ON public.axes_accessfailurelog USING btree (user_agent varchar_pattern_ops);
CREATE INDEX axes_accessfailurelog_username_a8b7e8a4 ON public.axes_accessfailurelog USING btree (username);
CREATE INDEX axes_accessfailurelog_username_a8b7e8a4_like ON public.axes_accessfailurelog USING btree (username varchar_pattern_ops);
CREATE INDEX axes_accesslog_ip_address_86b417e5 ON public.axes_accesslog USING btree (ip_address);
CREATE INDEX axes_accesslog_user_agent_0e659004 ON public.axes_accesslog USING btree (user_agent);
CREATE INDEX axes_accesslog_user_agent_0e659004_like ON public.axes_accesslog USING btree (user_agent varchar_pattern_ops);
CREATE INDEX axes_accesslog_username_df93064b ON public.axes_accesslog USING btree (username);
CREATE INDEX axes_accesslog_username_df93064b_like ON public.axes_accesslog USING btree (username varchar_pattern_ops);
CREATE INDEX covers_bedanswer_cover_id_dcc1048d ON public.covers_bedanswer USING btree (cover_id);
CREATE INDEX covers_bedanswer_place_id_2f39a082 ON public.covers_bedanswer USING btree (place_id);
CREATE INDEX covers_covertrial_bare_id_0a0a2964 ON public.covers_covertrial USING btree (bare_id);
CREATE INDEX covers_covertrial_covered_id_a1d4595c ON public.covers_covertrial USING btree (covered_id);
CREATE INDEX covers_historicalcovertrial_bare_id_e5bb184a ON public.covers_historicalcovertrial USING btree (bare_id);
CREATE INDEX covers_historicalcovertrial_covered_id_87c16930 ON public.covers_historicalcovertrial USING btree (covered_id);
CREATE INDEX covers_historicalcovertrial_history_date_978ad4f4 ON public.covers_historicalcovertrial USING btree (history_date);
CREATE INDEX covers_historicalcovertrial_history_user_id_badb81f9 ON public.covers_historicalcovertrial USING btree (history_user_id);
CREATE INDEX covers_historicalcovertrial_id_6a9908fc ON public.covers_historicalcovertrial USING btree (id);
CREATE INDEX covers_seasonanswer_place_id_b41dc69a ON public.covers_seasonanswer USING btree (place_id);
CREATE INDEX django_session_expire_date_a5c62663 ON public.django_session USING btree (expire_date);
CREATE INDEX django_session_session_key_c0390e0f_like ON public.django_session USING btree (session_key varchar_pattern_ops);
CREATE INDEX forecasts_cropoutlook_place_id_717c4085 ON public.forecasts_cropoutlook USING btree (place_id);
CREATE INDEX forecasts_soilyear_place_id_111939ea ON public.forecasts_soilyear USING btree (place_id);
CREATE INDEX forecasts_windowchange_place_id_847282e6 ON public.forecasts_windowchange USING btree (place_id);
CREATE INDEX gardens_invitation_fingerprint_d4b4a740_like ON public.gardens_invitation USING btree (fingerprint varchar_pattern_ops);
CREATE INDEX gardens_invitation_garden_id_3536bbac ON public.gardens_invitation USING btree (garden_id);
CREATE INDEX gardens_invitation_made_by_id_2bcc17d2 ON public.gardens_invitation USING btree (made_by_id);
CREATE INDEX gardens_invitation_used_by_id_a9104f61 ON public.gardens_invitation USING btree (used_by_id);
CREATE INDEX gardens_membership_garden_id_882bb015 ON public.gardens_membership USING btree (garden_id);
CREATE INDEX gardens_membership_user_id_05e06b54 ON public.gardens_membership USING btree (user_id);
CREATE INDEX gardens_user_groups_group_id_2f32531c ON public.gardens_user_groups USING btree (group_id);
CREATE INDEX gardens_user_groups_user_id_6a1bcb9b ON public.gardens_user_groups USING btree (user_id);
CREATE INDEX gardens_user_user_permissions_permission_id_336dc673 ON public.gardens_user_user_permissions USING btree (permission_id);
CREATE INDEX gardens_user_user_permissions_user_id_c8f8b023 ON public.gardens_user_user_permissions USING btree (user_id);
CREATE INDEX gardens_user_username_fd4a1764_like ON public.gardens_user USING btree (username varchar_pattern_ops);
CREATE INDEX idx_procrastinate_jobs_worker_not_null ON public.procrastinate_jobs USING btree (worker_id) WHERE ((worker_id IS NOT NULL) AND (status = 'doing'::public.procrastinate_job_status));
CREATE INDEX idx_procrastinate_workers_last_heartbeat ON public.procrastinate_workers USING btree (last_heartbeat);
CREATE INDEX loggers_device_fingerprint_1f204505_like ON public.loggers_device USING btree (fingerprint varchar_pattern_ops);
CREATE INDEX loggers_device_garden_id_d3fd40bb ON public.loggers_device USING btree (garden_id);
CREATE INDEX loggers_device_made_by_id_6a50f57d ON public.loggers_device USING btree (made_by_id);
CREATE INDEX loggers_messagemapping_device_id_c14ab685 ON public.loggers_messagemapping USING btree (device_id);
CREATE INDEX loggers_probe_device_id_01c5682e ON public.loggers_probe USING btree (device_id);
CREATE INDEX loggers_probe_place_id_170eb89c ON public.loggers_probe USING btree (place_id);
CREATE INDEX loggers_probe_room_id_47d1b69f ON public.loggers_probe USING btree (room_id);
CREATE INDEX loggers_refusedmessage_device_id_66562e17 ON public.loggers_refusedmessage USING btree (device_id);
CREATE INDEX loggers_refusedmessage_garden_id_69a56c2f ON public.loggers_refusedmessage USING btree (garden_id);
CREATE INDEX mfa_authenticator_user_id_0c3a50c0 ON public.mfa_authenticator USING btree (user_id);
CREATE UNIQUE INDEX one_cover_of_a_name ON public.places_cover USING btree (garden_id, lower((name)::text)) WHERE (removed_at IS NULL);
CREATE UNIQUE INDEX one_packet_in_use ON public.seed_packet USING btree (garden_id, crop_key) WHERE (in_use AND (removed_at IS NULL));
CREATE UNIQUE INDEX one_place_of_a_name ON public.places_place USING btree (garden_id, lower((name)::text)) WHERE (removed_at IS NULL);
CREATE UNIQUE INDEX one_reading_at_a_time_and_depth ON public.readings_reading USING btree (place_id, taken_at, depth_m) WHERE (removed_at IS NULL);
CREATE UNIQUE INDEX one_room_of_a_name ON public.places_room USING btree (garden_id, lower((name)::text)) WHERE (removed_at IS NULL);
CREATE INDEX places_benchcheck_place_id_630e51e0 ON public.places_benchcheck USING btree (place_id);
CREATE INDEX places_cover_garden_id_0e0ecef8 ON public.places_cover USING btree (garden_id);
CREATE INDEX places_coverdamage_cover_id_e0fde6c4 ON public.places_coverdamage USING btree (cover_id);
CREATE INDEX places_coverperiod_item_id_b15d7315 ON public.places_coverperiod USING btree (item_id);
CREATE INDEX places_coverperiod_place_id_e86cf8d3 ON public.places_coverperiod USING btree (place_id);
CREATE INDEX places_heatperiod_place_id_6ad36219 ON public.places_heatperiod USING btree (place_id);
CREATE INDEX places_heattest_place_id_ef809961 ON public.places_heattest USING btree (place_id);
CREATE INDEX places_historicalbenchcheck_history_date_a6ad4c45 ON public.places_historicalbenchcheck USING btree (history_date);
CREATE INDEX places_historicalbenchcheck_history_user_id_acd9644c ON public.places_historicalbenchcheck USING btree (history_user_id);
CREATE INDEX places_historicalbenchcheck_id_c99105d0 ON public.places_historicalbenchcheck USING btree (id);
CREATE INDEX places_historicalbenchcheck_place_id_531b4c58 ON public.places_historicalbenchcheck USING btree (place_id);
CREATE INDEX places_historicalcover_garden_id_3af306fe ON public.places_historicalcover USING btree (garden_id);
CREATE INDEX places_historicalcover_history_date_e429ff9a ON public.places_historicalcover USING btree (history_date);
CREATE INDEX places_historicalcover_history_user_id_efd416fe ON public.places_historicalcover USING btree (history_user_id);
CREATE INDEX places_historicalcover_id_204b10c9 ON public.places_historicalcover USING btree (id);
CREATE INDEX places_historicalcoverperiod_history_date_18b6e068 ON public.places_historicalcoverperiod USING btree (history_date);
CREATE INDEX places_historicalcoverperiod_history_user_id_25ba3043 ON public.places_historicalcoverperiod USING btree (history_user_id);
CREATE INDEX places_historicalcoverperiod_id_2d52ebfe ON public.places_historicalcoverperiod USING btree (id);
CREATE INDEX places_historicalcoverperiod_item_id_707db76b ON public.places_historicalcoverperiod USING btree (item_id);
CREATE INDEX places_historicalcoverperiod_place_id_4345a8ca ON public.places_historicalcoverperiod USING btree (place_id);
CREATE INDEX places_historicalheatperiod_history_date_7711e678 ON public.places_historicalheatperiod USING btree (history_date);
CREATE INDEX places_historicalheatperiod_history_user_id_68db1b04 ON public.places_historicalheatperiod USING btree (history_user_id);
CREATE INDEX places_historicalheatperiod_id_6b0808cc ON public.places_historicalheatperiod USING btree (id);
CREATE INDEX places_historicalheatperiod_place_id_395f02f1 ON public.places_historicalheatperiod USING btree (place_id);
CREATE INDEX places_historicalheattest_history_date_5bfd5299 ON public.places_historicalheattest USING btree (history_date);
CREATE INDEX places_historicalheattest_history_user_id_03d24af4 ON public.places_historicalheattest USING btree (history_user_id);
CREATE INDEX places_historicalheattest_id_7490c032 ON public.places_historicalheattest USING btree (id);
CREATE INDEX places_historicalheattest_place_id_0a1723cc ON public.places_historicalheattest USING btree (place_id);
CREATE INDEX places_historicalhotbed_history_date_ac82f22c ON public.places_historicalhotbed USING btree (history_date);
CREATE INDEX places_historicalhotbed_history_user_id_fff70708 ON public.places_historicalhotbed USING btree (history_user_id);
CREATE INDEX places_historicalhotbed_id_9bde12e1 ON public.places_historicalhotbed USING btree (id);
CREATE INDEX places_historicalhotbed_place_id_ddfb010b ON public.places_historicalhotbed USING btree (place_id);
CREATE INDEX places_historicalhotbedfill_history_date_d0d01f9a ON public.places_historicalhotbedfill USING btree (history_date);
CREATE INDEX places_historicalhotbedfill_history_user_id_5fe71aed ON public.places_historicalhotbedfill USING btree (history_user_id);
CREATE INDEX places_historicalhotbedfill_id_b31aa948 ON public.places_historicalhotbedfill USING btree (id);
CREATE INDEX places_historicalhotbedfill_place_id_5196173c ON public.places_historicalhotbedfill USING btree (place_id);
CREATE INDEX places_historicalhotbednote_history_date_0e2ed4a1 ON public.places_historicalhotbednote USING btree (history_date);
CREATE INDEX places_historicalhotbednote_history_user_id_3141b9ec ON public.places_historicalhotbednote USING btree (history_user_id);
CREATE INDEX places_historicalhotbednote_id_9dbc0952 ON public.places_historicalhotbednote USING btree (id);
CREATE INDEX places_historicalhotbednote_place_id_425693e6 ON public.places_historicalhotbednote USING btree (place_id);
CREATE INDEX places_historicalhotbedtray_history_date_ba4e52df ON public.places_historicalhotbedtray USING btree (history_date);
CREATE INDEX places_historicalhotbedtray_history_user_id_a46aa11b ON public.places_historicalhotbedtray USING btree (history_user_id);
CREATE INDEX places_historicalhotbedtray_hotbed_id_94a17ced ON public.places_historicalhotbedtray USING btree (hotbed_id);
CREATE INDEX places_historicalhotbedtray_id_908eada1 ON public.places_historicalhotbedtray USING btree (id);
CREATE INDEX places_historicalhotbedtray_place_id_f3f1902a ON public.places_historicalhotbedtray USING btree (place_id);
CREATE INDEX places_historicallamp_history_date_b38c0aa1 ON public.places_historicallamp USING btree (history_date);
CREATE INDEX places_historicallamp_history_user_id_928acc3c ON public.places_historicallamp USING btree (history_user_id);
CREATE INDEX places_historicallamp_id_531beb97 ON public.places_historicallamp USING btree (id);
CREATE INDEX places_historicallamp_place_id_1007696c ON public.places_historicallamp USING btree (place_id);
CREATE INDEX places_historicaloperation_history_date_f927f1d6 ON public.places_historicaloperation USING btree (history_date);
CREATE INDEX places_historicaloperation_history_user_id_8d6f59e9 ON public.places_historicaloperation USING btree (history_user_id);
CREATE INDEX places_historicaloperation_id_f8d1efcd ON public.places_historicaloperation USING btree (id);
CREATE INDEX places_historicaloperation_place_id_1275b163 ON public.places_historicaloperation USING btree (place_id);
CREATE INDEX places_historicalplace_garden_id_f85e9914 ON public.places_historicalplace USING btree (garden_id);
CREATE INDEX places_historicalplace_history_date_16fb1ec5 ON public.places_historicalplace USING btree (history_date);
CREATE INDEX places_historicalplace_history_user_id_0b06f73b ON public.places_historicalplace USING btree (history_user_id);
CREATE INDEX places_historicalplace_id_b810c6af ON public.places_historicalplace USING btree (id);
CREATE INDEX places_historicalplace_room_id_bced33f1 ON public.places_historicalplace USING btree (room_id);
CREATE INDEX places_historicalroom_garden_id_a00a782d ON public.places_historicalroom USING btree (garden_id);
CREATE INDEX places_historicalroom_history_date_72dcf3fe ON public.places_historicalroom USING btree (history_date);
CREATE INDEX places_historicalroom_history_user_id_55baefe4 ON public.places_historicalroom USING btree (history_user_id);
CREATE INDEX places_historicalroom_id_3fd35ddf ON public.places_historicalroom USING btree (id);
CREATE INDEX places_historicalroomair_history_date_0dacd2ca ON public.places_historicalroomair USING btree (history_date);
CREATE INDEX places_historicalroomair_history_user_id_3bc37082 ON public.places_historicalroomair USING btree (history_user_id);
CREATE INDEX places_historicalroomair_id_752f9a36 ON public.places_historicalroomair USING btree (id);
CREATE INDEX places_historicalroomair_room_id_8b49c4f0 ON public.places_historicalroomair USING btree (room_id);
CREATE INDEX places_historicaltubertray_history_date_a4461195 ON public.places_historicaltubertray USING btree (history_date);
CREATE INDEX places_historicaltubertray_history_user_id_e4872fd2 ON public.places_historicaltubertray USING btree (history_user_id);
CREATE INDEX places_historicaltubertray_id_c7db12a4 ON public.places_historicaltubertray USING btree (id);
CREATE INDEX places_historicaltubertray_place_id_1a673808 ON public.places_historicaltubertray USING btree (place_id);
CREATE INDEX places_hotbedfill_place_id_cda62d74 ON public.places_hotbedfill USING btree (place_id);
CREATE INDEX places_hotbednote_place_id_ce422815 ON public.places_hotbednote USING btree (place_id);
CREATE INDEX places_hotbedtray_hotbed_id_57ed8dd1 ON public.places_hotbedtray USING btree (hotbed_id);
CREATE INDEX places_hotbedtray_place_id_b5d23ceb ON public.places_hotbedtray USING btree (place_id);
CREATE INDEX places_lamp_place_id_dad1a813 ON public.places_lamp USING btree (place_id);
CREATE INDEX places_operation_place_id_f783f169 ON public.places_operation USING btree (place_id);
CREATE INDEX places_place_garden_id_2c10e193 ON public.places_place USING btree (garden_id);
CREATE INDEX places_place_room_id_bcc5c516 ON public.places_place USING btree (room_id);
CREATE INDEX places_room_garden_id_e8111cef ON public.places_room USING btree (garden_id);
CREATE INDEX places_roomair_room_id_e6774a29 ON public.places_roomair USING btree (room_id);
CREATE INDEX places_tubertray_place_id_b0d86168 ON public.places_tubertray USING btree (place_id);
CREATE INDEX plants_historicalbedshape_history_date_6d49353c ON public.plants_historicalbedshape USING btree (history_date);
CREATE INDEX plants_historicalbedshape_history_user_id_3dcc146f ON public.plants_historicalbedshape USING btree (history_user_id);
CREATE INDEX plants_historicalbedshape_id_23ba0d06 ON public.plants_historicalbedshape USING btree (id);
CREATE INDEX plants_historicalbedshape_place_id_f3f69971 ON public.plants_historicalbedshape USING btree (place_id);
CREATE INDEX plants_historicalplantevent_history_date_3f70a964 ON public.plants_historicalplantevent USING btree (history_date);
CREATE INDEX plants_historicalplantevent_history_user_id_d37eeafc ON public.plants_historicalplantevent USING btree (history_user_id);
CREATE INDEX plants_historicalplantevent_id_7e5192b7 ON public.plants_historicalplantevent USING btree (id);
CREATE INDEX plants_historicalplantevent_planting_id_1aaa7b56 ON public.plants_historicalplantevent USING btree (planting_id);
CREATE INDEX plants_historicalplanting_entered_by_id_858e4bba ON public.plants_historicalplanting USING btree (entered_by_id);
CREATE INDEX plants_historicalplanting_history_date_8f5f0511 ON public.plants_historicalplanting USING btree (history_date);
CREATE INDEX plants_historicalplanting_history_user_id_84f6de1a ON public.plants_historicalplanting USING btree (history_user_id);
CREATE INDEX plants_historicalplanting_id_f71e643e ON public.plants_historicalplanting USING btree (id);
CREATE INDEX plants_historicalplanting_packet_id_7f25b7e3 ON public.plants_historicalplanting USING btree (packet_id);
CREATE INDEX plants_historicalplanting_place_id_86bb4b41 ON public.plants_historicalplanting USING btree (place_id);
CREATE INDEX plants_historicalplanting_sowing_id_d8cb196d ON public.plants_historicalplanting USING btree (sowing_id);
CREATE INDEX plants_plantevent_planting_id_a34faefd ON public.plants_plantevent USING btree (planting_id);
CREATE INDEX plants_planting_entered_by_id_91f95b2d ON public.plants_planting USING btree (entered_by_id);
CREATE INDEX plants_planting_packet_id_fe7752eb ON public.plants_planting USING btree (packet_id);
CREATE INDEX plants_planting_place_id_a944f1c5 ON public.plants_planting USING btree (place_id);
CREATE INDEX plants_planting_sowing_id_0b2ab2a5 ON public.plants_planting USING btree (sowing_id);
CREATE INDEX plants_savedseed_planting_id_10672d08 ON public.plants_savedseed USING btree (planting_id);
CREATE INDEX procrastinate_events_job_id_fkey_v1 ON public.procrastinate_events USING btree (job_id);
CREATE INDEX procrastinate_jobs_id_lock_idx_v1 ON public.procrastinate_jobs USING btree (id, lock) WHERE (status = ANY (ARRAY['todo'::public.procrastinate_job_status, 'doing'::public.procrastinate_job_status]));
CREATE UNIQUE INDEX procrastinate_jobs_lock_idx_v1 ON public.procrastinate_jobs USING btree (lock) WHERE (status = 'doing'::public.procrastinate_job_status);
CREATE INDEX procrastinate_jobs_priority_idx_v1 ON public.procrastinate_jobs USING btree (priority DESC, id) WHERE (status = 'todo'::public.procrastinate_job_status);
CREATE INDEX procrastinate_jobs_queue_name_idx_v1 ON public.procrastinate_jobs USING btree (queue_name);
CREATE UNIQUE INDEX procrastinate_jobs_queueing_lock_idx_v1 ON public.procrastinate_jobs USING btree (queueing_lock) WHERE (status = 'todo'::public.procrastinate_job_status);
CREATE INDEX procrastinate_periodic_defers_job_id_fkey_v1 ON public.procrastinate_periodic_defers USING btree (job_id);
CREATE INDEX reading_newest_first ON public.readings_reading USING btree (place_id, taken_at DESC);
CREATE INDEX readings_filesource_garden_id_bfcc360d ON public.readings_filesource USING btree (garden_id);
CREATE INDEX readings_historicalreading_entered_by_id_3f2732bf ON public.readings_historicalreading USING btree (entered_by_id);
CREATE INDEX readings_historicalreading_history_date_e18b585d ON public.readings_historicalreading USING btree (history_date);
CREATE INDEX readings_historicalreading_history_user_id_4fca8192 ON public.readings_historicalreading USING btree (history_user_id);
CREATE INDEX readings_historicalreading_id_71b2a2c7 ON public.readings_historicalreading USING btree (id);
CREATE INDEX readings_historicalreading_place_id_de0b82bd ON public.readings_historicalreading USING btree (place_id);
CREATE INDEX readings_historicalreading_visit_id_c9dfaea1 ON public.readings_historicalreading USING btree (visit_id);
CREATE INDEX readings_historicalvisit_history_date_c74f609f ON public.readings_historicalvisit USING btree (history_date);
CREATE INDEX readings_historicalvisit_history_user_id_abe2542c ON public.readings_historicalvisit USING btree (history_user_id);
CREATE INDEX readings_historicalvisit_id_b2566063 ON public.readings_historicalvisit USING btree (id);
CREATE INDEX readings_historicalvisit_key_8b724e5a ON public.readings_historicalvisit USING btree (key);
CREATE INDEX readings_historicalvisit_made_by_id_4fccdde5 ON public.readings_historicalvisit USING btree (made_by_id);
CREATE INDEX readings_historicalvisit_place_id_4c97aa74 ON public.readings_historicalvisit USING btree (place_id);
CREATE INDEX readings_incomingfile_garden_id_e3103027 ON public.readings_incomingfile USING btree (garden_id);
CREATE INDEX readings_incomingfile_user_id_4eae8c28 ON public.readings_incomingfile USING btree (user_id);
CREATE INDEX readings_reading_entered_by_id_6f2638d7 ON public.readings_reading USING btree (entered_by_id);
CREATE INDEX readings_reading_place_id_244ef816 ON public.readings_reading USING btree (place_id);
CREATE INDEX readings_reading_visit_id_99976df9 ON public.readings_reading USING btree (visit_id);
CREATE INDEX readings_visit_made_by_id_ee5a53a7 ON public.readings_visit USING btree (made_by_id);
CREATE INDEX readings_visit_operations_operation_id_6eb608d5 ON public.readings_visit_operations USING btree (operation_id);
CREATE INDEX readings_visit_operations_visit_id_f3cdaefc ON public.readings_visit_operations USING btree (visit_id);
CREATE INDEX readings_visit_place_id_cdf3fe2b ON public.readings_visit USING btree (place_id);
CREATE INDEX readings_watchedfile_garden_id_7ef3304a ON public.readings_watchedfile USING btree (garden_id);
CREATE INDEX records_archivepart_archive_id_63596272 ON public.records_archivepart USING btree (archive_id);
CREATE INDEX records_incomingarchive_garden_id_859fc562 ON public.records_incomingarchive USING btree (garden_id);
CREATE INDEX records_incomingarchive_user_id_bf6b7c8b ON public.records_incomingarchive USING btree (user_id);
CREATE INDEX seed_cropchoice_garden_id_672e9d06 ON public.seed_cropchoice USING btree (garden_id);
CREATE INDEX seed_packet_garden_id_9a7fe9e9 ON public.seed_packet USING btree (garden_id);
CREATE INDEX sowings_count_sowing_id_96c80c3b ON public.sowings_count USING btree (sowing_id);
CREATE INDEX sowings_historicalcount_history_date_a92014e3 ON public.sowings_historicalcount USING btree (history_date);
CREATE INDEX sowings_historicalcount_history_user_id_0b6d6b15 ON public.sowings_historicalcount USING btree (history_user_id);
CREATE INDEX sowings_historicalcount_id_09d3e758 ON public.sowings_historicalcount USING btree (id);
CREATE INDEX sowings_historicalcount_sowing_id_740f9c9b ON public.sowings_historicalcount USING btree (sowing_id);
CREATE INDEX sowings_historicalintention_entered_by_id_cfab80e5 ON public.sowings_historicalintention USING btree (entered_by_id);
CREATE INDEX sowings_historicalintention_history_date_ead9fc5b ON public.sowings_historicalintention USING btree (history_date);
CREATE INDEX sowings_historicalintention_history_user_id_0eb9d5ce ON public.sowings_historicalintention USING btree (history_user_id);
CREATE INDEX sowings_historicalintention_id_fb7e0094 ON public.sowings_historicalintention USING btree (id);
CREATE INDEX sowings_historicalintention_made_id_cfa8fdb4 ON public.sowings_historicalintention USING btree (made_id);
CREATE INDEX sowings_historicalintention_place_id_b56c2dec ON public.sowings_historicalintention USING btree (place_id);
CREATE INDEX sowings_historicalsowing_entered_by_id_19cfd7a6 ON public.sowings_historicalsowing USING btree (entered_by_id);
CREATE INDEX sowings_historicalsowing_history_date_71ffc9d9 ON public.sowings_historicalsowing USING btree (history_date);
CREATE INDEX sowings_historicalsowing_history_user_id_1e02187d ON public.sowings_historicalsowing USING btree (history_user_id);
CREATE INDEX sowings_historicalsowing_id_e82b81d5 ON public.sowings_historicalsowing USING btree (id);
CREATE INDEX sowings_historicalsowing_packet_id_8919bdba ON public.sowings_historicalsowing USING btree (packet_id);
CREATE INDEX sowings_historicalsowing_place_id_2a1d73f8 ON public.sowings_historicalsowing USING btree (place_id);
CREATE INDEX sowings_historicalsowing_sown_in_id_13d15fcd ON public.sowings_historicalsowing USING btree (sown_in_id);
CREATE INDEX sowings_historicalstep_history_date_152fa343 ON public.sowings_historicalstep USING btree (history_date);
CREATE INDEX sowings_historicalstep_history_user_id_8e7ca37a ON public.sowings_historicalstep USING btree (history_user_id);
CREATE INDEX sowings_historicalstep_id_20647af3 ON public.sowings_historicalstep USING btree (id);
CREATE INDEX sowings_historicalstep_left_id_17a2a052 ON public.sowings_historicalstep USING btree (left_id);
CREATE INDEX sowings_historicalstep_place_id_7880d954 ON public.sowings_historicalstep USING btree (place_id);
CREATE INDEX sowings_historicalstep_sowing_id_bd7c4c5e ON public.sowings_historicalstep USING btree (sowing_id);
CREATE INDEX sowings_intention_entered_by_id_e8249ab4 ON public.sowings_intention USING btree (entered_by_id);
CREATE INDEX sowings_intention_place_id_bbaeda3b ON public.sowings_intention USING btree (place_id);
CREATE INDEX sowings_sowing_entered_by_id_4da55090 ON public.sowings_sowing USING btree (entered_by_id);
CREATE INDEX sowings_sowing_packet_id_c95a9dcf ON public.sowings_sowing USING btree (packet_id);
CREATE INDEX sowings_sowing_place_id_4f182a2c ON public.sowings_sowing USING btree (place_id);
CREATE INDEX sowings_sowing_sown_in_id_95c98c23 ON public.sowings_sowing USING btree (sown_in_id);
CREATE INDEX sowings_step_left_id_634b6de2 ON public.sowings_step USING btree (left_id);
CREATE INDEX sowings_step_place_id_eeaf57fe ON public.sowings_step USING btree (place_id);
CREATE INDEX sowings_step_sowing_id_fcd036be ON public.sowings_step USING btree (sowing_id);
CREATE INDEX today_answer_by_id_987b1756 ON public.today_answer USING btree (by_id);
CREATE INDEX today_answer_ended_id_d5b98640 ON public.today_answer USING btree (ended_id);
CREATE INDEX today_answer_garden_id_ddb1dcaf ON public.today_answer USING btree (garden_id);
CREATE INDEX today_answer_operation_id_1d3d4225 ON public.today_answer USING btree (operation_id);
CREATE INDEX today_answer_period_id_0ce3db5e ON public.today_answer USING btree (period_id);
CREATE INDEX today_answer_place_id_bb9069cd ON public.today_answer USING btree (place_id);
CREATE INDEX today_answer_planting_id_65435b69 ON public.today_answer USING btree (planting_id);
CREATE INDEX today_answer_step_id_b41936b3 ON public.today_answer USING btree (step_id);
CREATE INDEX today_answer_tubers_id_d875ebd8 ON public.today_answer USING btree (tubers_id);
CREATE INDEX trials_germinationtrial_garden_id_7b9b10e4 ON public.trials_germinationtrial USING btree (garden_id);
CREATE INDEX trials_historicalgerminationtrial_garden_id_0df8ac41 ON public.trials_historicalgerminationtrial USING btree (garden_id);
CREATE INDEX trials_historicalgerminationtrial_history_date_c173b76f ON public.trials_historicalgerminationtrial USING btree (history_date);
CREATE INDEX trials_historicalgerminationtrial_history_user_id_5cf123a5 ON public.trials_historicalgerminationtrial USING btree (history_user_id);
CREATE INDEX trials_historicalgerminationtrial_id_9d5cae36 ON public.trials_historicalgerminationtrial USING btree (id);
CREATE INDEX trials_historicaltrialbatch_history_date_e04ec781 ON public.trials_historicaltrialbatch USING btree (history_date);
CREATE INDEX trials_historicaltrialbatch_history_user_id_aa39edc8 ON public.trials_historicaltrialbatch USING btree (history_user_id);
CREATE INDEX trials_historicaltrialbatch_id_8bd61262 ON public.trials_historicaltrialbatch USING btree (id);
CREATE INDEX trials_historicaltrialbatch_packet_id_2a3b343f ON public.trials_historicaltrialbatch USING btree (packet_id);
CREATE INDEX trials_historicaltrialbatch_place_id_9fc7c94c ON public.trials_historicaltrialbatch USING btree (place_id);
CREATE INDEX trials_historicaltrialbatch_trial_id_b02f4f66 ON public.trials_historicaltrialbatch USING btree (trial_id);
CREATE INDEX trials_historicaltrialcount_batch_id_8338604c ON public.trials_historicaltrialcount USING btree (batch_id);
CREATE INDEX trials_historicaltrialcount_history_date_b1daaba4 ON public.trials_historicaltrialcount USING btree (history_date);
CREATE INDEX trials_historicaltrialcount_history_user_id_617e03ec ON public.trials_historicaltrialcount USING btree (history_user_id);
CREATE INDEX trials_historicaltrialcount_id_a9cd4307 ON public.trials_historicaltrialcount USING btree (id);
CREATE INDEX trials_trialbatch_packet_id_81c76141 ON public.trials_trialbatch USING btree (packet_id);
CREATE INDEX trials_trialbatch_place_id_79dc5bfe ON public.trials_trialbatch USING btree (place_id);
CREATE INDEX trials_trialbatch_trial_id_484bd542 ON public.trials_trialbatch USING btree (trial_id);
CREATE INDEX trials_trialcount_batch_id_c39ffb39 ON public.trials_trialcount USING btree (batch_id);
CREATE UNIQUE INDEX unique_authenticator_type ON public.mfa_authenticator USING btree (user_id, type) WHERE ((type)::text = ANY ((ARRAY['totp'::character varying, 'recovery_codes'::character varying])::text[]));
CREATE UNIQUE INDEX unique_primary_email ON public.account_emailaddress USING btree (user_id, "primary") WHERE "primary";
CREATE UNIQUE INDEX unique_verified_email ON public.account_emailaddress USING btree (email) WHERE verified;
CREATE INDEX upkeep_alert_garden_id_f925f388 ON public.upkeep_alert USING btree (garden_id);
CREATE INDEX upkeep_alert_key_dba7529c_like ON public.upkeep_alert USING btree (key varchar_pattern_ops);
CREATE INDEX usersessions_usersession_session_key_fd35de43_like ON public.usersessions_usersession USING btree (session_key varchar_pattern_ops);
CREATE INDEX usersessions_usersession_user_id_af5e0a6d ON public.usersessions_usersession USING btree (user_id);
CREATE INDEX visit_newest_first ON public.readings_visit USING btree (place_id, at DESC);
CREATE INDEX weather_dailyweather_garden_id_bb840071 ON public.weather_dailyweather USING btree (garden_id);
CREATE INDEX weather_historicaldailyweather_garden_id_c77bf5dc ON public.weather_historicaldailyweather USING btree (garden_id);
CREATE INDEX weather_historicaldailyweather_history_date_f812b9d1 ON public.weather_historicaldailyweather USING btree (history_date);
CREATE INDEX weather_historicaldailyweather_history_user_id_1ea335b3 ON public.weather_historicaldailyweather USING btree (history_user_id);
CREATE INDEX weather_historicaldailyweather_id_e1e3efe8 ON public.weather_historicaldailyweather USING btree (id);
CREATE INDEX weather_providerstate_address_bc06606f_like ON public.weather_providerstate USING btree (address varchar_pattern_ops);
CREATE INDEX weather_weathercell_asked_at_0e115b43 ON public.weather_weathercell USING btree (asked_at);
CREATE INDEX window_change_newest ON public.forecasts_windowchange USING btree (place_id, at);
CREATE INDEX windows_calendarlink_token_268f722c_like ON public.windows_calendarlink USING btree (token varchar_pattern_ops);
CREATE INDEX work_failure_garden_id_0db7ab09 ON public.work_failure USING btree (garden_id);
CREATE INDEX work_failure_key_a9294dc3_like ON public.work_failure USING btree (key varchar_pattern_ops);
CREATE INDEX work_failure_place_id_5e83df88 ON public.work_failure USING btree (place_id);
CREATE INDEX work_heartbeat_part_6c8fbd58_like ON public.work_heartbeat USING btree (part varchar_pattern_ops);
CREATE INDEX work_worked_garden_id_9076aa12 ON public.work_worked USING btree (garden_id);
CREATE INDEX years_historicalsign_garden_id_7dd57333 ON public.years_historicalsign USING btree (garden_id);
CREATE INDEX years_historicalsign_history_date_2a4ca5e7 ON public.years_historicalsign USING btree (history_date);
CREATE INDEX years_historicalsign_history_user_id_464cd6e9 ON public.years_historicalsign USING btree (history_user_id);
CREATE INDEX years_historicalsign_id_2263d764 ON public.years_historicalsign USING btree (id);
CREATE INDEX years_sign_garden_id_7268d49c ON public.years_sign USING btree (garden_id);
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2015_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2016_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2017_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2018_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2019_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2020_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2021_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2022_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2023_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2024_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2025_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2026_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2027_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2028_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2029_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2030_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2031_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2032_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2033_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2034_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2035_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2036_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2037_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2038_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2039_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2040_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2041_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2042_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2043_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2044_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_2045_pkey;
ALTER INDEX public.loggers_reading_pkey ATTACH PARTITION public.loggers_reading_else_pkey;
CREATE TRIGGER procrastinate_jobs_notify_queue_job_aborted_v1 AFTER UPDATE OF abort_requested ON public.procrastinate_jobs FOR EACH ROW WHEN (((old.abort_requested = false) AND (new.abort_requested = true) AND (new.status = 'doing'::public.procrastinate_job_status))) EXECUTE FUNCTION public.procrastinate_notify_queue_abort_job_v1();
CREATE TRIGGER procrastinate_jobs_notify_queue_job_inserted_v1 AFTER INSERT ON public.procrastinate_jobs FOR EACH ROW WHEN ((new.status = 'todo'::public.procrastinate_job_status)) EXECUTE FUNCTION public.procrastinate_notify_queue_job_inserted_v1();
CREATE TRIGGER procrastinate_trigger_abort_requested_events_v1 AFTER UPDATE OF abort_requested ON public.procrastinate_jobs FOR EACH ROW WHEN ((new.abort_requested = true)) EXECUTE FUNCTION public.procrastinate_trigger_abort_requested_events_procedure_v1();
CREATE TRIGGER procrastinate_trigger_delete_jobs_v1 BEFORE DELETE ON public.procrastinate_jobs FOR EACH ROW EXECUTE FUNCTION public.procrastinate_unlink_periodic_defers_v1();
CREATE TRIGGER procrastinate_trigger_scheduled_events_v1 AFTER INSERT OR UPDATE ON public.procrastinate_jobs FOR EACH ROW WHEN (((new.scheduled_at IS NOT NULL) AND (new.status = 'todo'::public.procrastinate_job_status))) EXECUTE FUNCTION public.procrastinate_trigger_function_scheduled_events_v1();
CREATE TRIGGER procrastinate_trigger_status_events_insert_v1 AFTER INSERT ON public.procrastinate_jobs FOR EACH ROW WHEN ((new.status = 'todo'::public.procrastinate_job_status)) EXECUTE FUNCTION public.procrastinate_trigger_function_status_events_insert_v1();
CREATE TRIGGER procrastinate_trigger_status_events_update_v1 AFTER UPDATE OF status ON public.procrastinate_jobs FOR EACH ROW EXECUTE FUNCTION public.procrastinate_trigger_function_status_events_update_v1();
ALTER TABLE ONLY public.account_emailaddress
    ADD CONSTRAINT account_emailaddress_user_id_2c513194_fk_gardens_user_id FOREIGN KEY (user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.account_emailconfirmation
    ADD CONSTRAINT account_emailconfirm_email_address_id_5b7f8c58_fk_account_e FOREIGN KEY (email_address_id) REFERENCES public.account_emailaddress(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.auth_group_permissions
    ADD CONSTRAINT auth_group_permissio_permission_id_84c5c92e_fk_auth_perm FOREIGN KEY (permission_id) REFERENCES public.auth_permission(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.auth_group_permissions
    ADD CONSTRAINT auth_group_permissions_group_id_b120cbf9_fk_auth_group_id FOREIGN KEY (group_id) REFERENCES public.auth_group(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.auth_permission
    ADD CONSTRAINT auth_permission_content_type_id_2f476e4b_fk_django_co FOREIGN KEY (content_type_id) REFERENCES public.django_content_type(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.axes_accessattemptexpiration
    ADD CONSTRAINT axes_accessattemptex_access_attempt_id_6b73a47a_fk_axes_acce FOREIGN KEY (access_attempt_id) REFERENCES public.axes_accessattempt(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.covers_bedanswer
    ADD CONSTRAINT covers_bedanswer_cover_id_dcc1048d_fk_places_cover_id FOREIGN KEY (cover_id) REFERENCES public.places_cover(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.covers_bedanswer
    ADD CONSTRAINT covers_bedanswer_place_id_2f39a082_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.covers_covertrial
    ADD CONSTRAINT covers_covertrial_bare_id_0a0a2964_fk_places_place_id FOREIGN KEY (bare_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.covers_covertrial
    ADD CONSTRAINT covers_covertrial_covered_id_a1d4595c_fk_places_place_id FOREIGN KEY (covered_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.covers_historicalcovertrial
    ADD CONSTRAINT covers_historicalcov_history_user_id_badb81f9_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.covers_seasonanswer
    ADD CONSTRAINT covers_seasonanswer_place_id_b41dc69a_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.forecasts_cropoutlook
    ADD CONSTRAINT forecasts_cropoutlook_place_id_717c4085_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.forecasts_forecast
    ADD CONSTRAINT forecasts_forecast_place_id_65b529ae_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.forecasts_modelsnapshot
    ADD CONSTRAINT forecasts_modelsnapshot_place_id_421d6f38_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.forecasts_soilyear
    ADD CONSTRAINT forecasts_soilyear_place_id_111939ea_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.forecasts_windowchange
    ADD CONSTRAINT forecasts_windowchange_place_id_847282e6_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_invitation
    ADD CONSTRAINT gardens_invitation_garden_id_3536bbac_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_invitation
    ADD CONSTRAINT gardens_invitation_made_by_id_2bcc17d2_fk_gardens_user_id FOREIGN KEY (made_by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_invitation
    ADD CONSTRAINT gardens_invitation_used_by_id_a9104f61_fk_gardens_user_id FOREIGN KEY (used_by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_membership
    ADD CONSTRAINT gardens_membership_garden_id_882bb015_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_membership
    ADD CONSTRAINT gardens_membership_user_id_05e06b54_fk_gardens_user_id FOREIGN KEY (user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_user_groups
    ADD CONSTRAINT gardens_user_groups_group_id_2f32531c_fk_auth_group_id FOREIGN KEY (group_id) REFERENCES public.auth_group(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_user_groups
    ADD CONSTRAINT gardens_user_groups_user_id_6a1bcb9b_fk_gardens_user_id FOREIGN KEY (user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_user_user_permissions
    ADD CONSTRAINT gardens_user_user_pe_permission_id_336dc673_fk_auth_perm FOREIGN KEY (permission_id) REFERENCES public.auth_permission(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.gardens_user_user_permissions
    ADD CONSTRAINT gardens_user_user_pe_user_id_c8f8b023_fk_gardens_u FOREIGN KEY (user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.loggers_device
    ADD CONSTRAINT loggers_device_garden_id_d3fd40bb_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.loggers_device
    ADD CONSTRAINT loggers_device_made_by_id_6a50f57d_fk_gardens_user_id FOREIGN KEY (made_by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.loggers_messagemapping
    ADD CONSTRAINT loggers_messagemapping_device_id_c14ab685_fk_loggers_device_id FOREIGN KEY (device_id) REFERENCES public.loggers_device(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.loggers_probe
    ADD CONSTRAINT loggers_probe_device_id_01c5682e_fk_loggers_device_id FOREIGN KEY (device_id) REFERENCES public.loggers_device(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.loggers_probe
    ADD CONSTRAINT loggers_probe_place_id_170eb89c_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.loggers_probe
    ADD CONSTRAINT loggers_probe_room_id_47d1b69f_fk_places_room_id FOREIGN KEY (room_id) REFERENCES public.places_room(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.loggers_refusedmessage
    ADD CONSTRAINT loggers_refusedmessage_device_id_66562e17_fk_loggers_device_id FOREIGN KEY (device_id) REFERENCES public.loggers_device(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.loggers_refusedmessage
    ADD CONSTRAINT loggers_refusedmessage_garden_id_69a56c2f_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.mfa_authenticator
    ADD CONSTRAINT mfa_authenticator_user_id_0c3a50c0_fk_gardens_user_id FOREIGN KEY (user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_benchcheck
    ADD CONSTRAINT places_benchcheck_place_id_630e51e0_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_cover
    ADD CONSTRAINT places_cover_garden_id_0e0ecef8_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_coverdamage
    ADD CONSTRAINT places_coverdamage_cover_id_e0fde6c4_fk_places_cover_id FOREIGN KEY (cover_id) REFERENCES public.places_cover(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_coverperiod
    ADD CONSTRAINT places_coverperiod_item_id_b15d7315_fk_places_cover_id FOREIGN KEY (item_id) REFERENCES public.places_cover(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_coverperiod
    ADD CONSTRAINT places_coverperiod_place_id_e86cf8d3_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_heatperiod
    ADD CONSTRAINT places_heatperiod_place_id_6ad36219_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_heattest
    ADD CONSTRAINT places_heattest_place_id_ef809961_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalbenchcheck
    ADD CONSTRAINT places_historicalben_history_user_id_acd9644c_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalcoverperiod
    ADD CONSTRAINT places_historicalcov_history_user_id_25ba3043_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalcover
    ADD CONSTRAINT places_historicalcov_history_user_id_efd416fe_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalheattest
    ADD CONSTRAINT places_historicalhea_history_user_id_03d24af4_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalheatperiod
    ADD CONSTRAINT places_historicalhea_history_user_id_68db1b04_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalhotbednote
    ADD CONSTRAINT places_historicalhot_history_user_id_3141b9ec_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalhotbedfill
    ADD CONSTRAINT places_historicalhot_history_user_id_5fe71aed_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalhotbedtray
    ADD CONSTRAINT places_historicalhot_history_user_id_a46aa11b_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalhotbed
    ADD CONSTRAINT places_historicalhot_history_user_id_fff70708_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicallamp
    ADD CONSTRAINT places_historicallam_history_user_id_928acc3c_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicaloperation
    ADD CONSTRAINT places_historicalope_history_user_id_8d6f59e9_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalplace
    ADD CONSTRAINT places_historicalpla_history_user_id_0b06f73b_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalroomair
    ADD CONSTRAINT places_historicalroo_history_user_id_3bc37082_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicalroom
    ADD CONSTRAINT places_historicalroo_history_user_id_55baefe4_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_historicaltubertray
    ADD CONSTRAINT places_historicaltub_history_user_id_e4872fd2_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_hotbed
    ADD CONSTRAINT places_hotbed_place_id_d91f52c4_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_hotbedfill
    ADD CONSTRAINT places_hotbedfill_place_id_cda62d74_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_hotbednote
    ADD CONSTRAINT places_hotbednote_place_id_ce422815_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_hotbedtray
    ADD CONSTRAINT places_hotbedtray_hotbed_id_57ed8dd1_fk_places_place_id FOREIGN KEY (hotbed_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_hotbedtray
    ADD CONSTRAINT places_hotbedtray_place_id_b5d23ceb_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_lamp
    ADD CONSTRAINT places_lamp_place_id_dad1a813_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_operation
    ADD CONSTRAINT places_operation_place_id_f783f169_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_place
    ADD CONSTRAINT places_place_garden_id_2c10e193_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_place
    ADD CONSTRAINT places_place_room_id_bcc5c516_fk_places_room_id FOREIGN KEY (room_id) REFERENCES public.places_room(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_room
    ADD CONSTRAINT places_room_garden_id_e8111cef_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_roomair
    ADD CONSTRAINT places_roomair_room_id_e6774a29_fk_places_room_id FOREIGN KEY (room_id) REFERENCES public.places_room(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.places_tubertray
    ADD CONSTRAINT places_tubertray_place_id_b0d86168_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_bedshape
    ADD CONSTRAINT plants_bedshape_place_id_7b7584c5_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_historicalbedshape
    ADD CONSTRAINT plants_historicalbed_history_user_id_3dcc146f_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_historicalplanting
    ADD CONSTRAINT plants_historicalpla_history_user_id_84f6de1a_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_historicalplantevent
    ADD CONSTRAINT plants_historicalpla_history_user_id_d37eeafc_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_plantevent
    ADD CONSTRAINT plants_plantevent_planting_id_a34faefd_fk_plants_planting_id FOREIGN KEY (planting_id) REFERENCES public.plants_planting(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_planting
    ADD CONSTRAINT plants_planting_entered_by_id_91f95b2d_fk_gardens_user_id FOREIGN KEY (entered_by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_planting
    ADD CONSTRAINT plants_planting_packet_id_fe7752eb_fk_seed_packet_id FOREIGN KEY (packet_id) REFERENCES public.seed_packet(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_planting
    ADD CONSTRAINT plants_planting_place_id_a944f1c5_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_planting
    ADD CONSTRAINT plants_planting_sowing_id_0b2ab2a5_fk_sowings_sowing_id FOREIGN KEY (sowing_id) REFERENCES public.sowings_sowing(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_savedseed
    ADD CONSTRAINT plants_savedseed_packet_id_bcd91b27_fk_seed_packet_id FOREIGN KEY (packet_id) REFERENCES public.seed_packet(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.plants_savedseed
    ADD CONSTRAINT plants_savedseed_planting_id_10672d08_fk_plants_planting_id FOREIGN KEY (planting_id) REFERENCES public.plants_planting(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.procrastinate_events
    ADD CONSTRAINT procrastinate_events_job_id_fkey FOREIGN KEY (job_id) REFERENCES public.procrastinate_jobs(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.procrastinate_jobs
    ADD CONSTRAINT procrastinate_jobs_worker_id_fkey FOREIGN KEY (worker_id) REFERENCES public.procrastinate_workers(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.procrastinate_periodic_defers
    ADD CONSTRAINT procrastinate_periodic_defers_job_id_fkey FOREIGN KEY (job_id) REFERENCES public.procrastinate_jobs(id);
ALTER TABLE ONLY public.readings_filesource
    ADD CONSTRAINT readings_filesource_garden_id_bfcc360d_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_historicalreading
    ADD CONSTRAINT readings_historicalr_history_user_id_4fca8192_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_historicalvisit
    ADD CONSTRAINT readings_historicalv_history_user_id_abe2542c_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_incomingfile
    ADD CONSTRAINT readings_incomingfile_garden_id_e3103027_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_incomingfile
    ADD CONSTRAINT readings_incomingfile_user_id_4eae8c28_fk_gardens_user_id FOREIGN KEY (user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_reading
    ADD CONSTRAINT readings_reading_entered_by_id_6f2638d7_fk_gardens_user_id FOREIGN KEY (entered_by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_reading
    ADD CONSTRAINT readings_reading_place_id_244ef816_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_reading
    ADD CONSTRAINT readings_reading_visit_id_99976df9_fk_readings_visit_id FOREIGN KEY (visit_id) REFERENCES public.readings_visit(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_visit
    ADD CONSTRAINT readings_visit_made_by_id_ee5a53a7_fk_gardens_user_id FOREIGN KEY (made_by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_visit_operations
    ADD CONSTRAINT readings_visit_opera_operation_id_6eb608d5_fk_places_op FOREIGN KEY (operation_id) REFERENCES public.places_operation(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_visit_operations
    ADD CONSTRAINT readings_visit_opera_visit_id_f3cdaefc_fk_readings_ FOREIGN KEY (visit_id) REFERENCES public.readings_visit(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_visit
    ADD CONSTRAINT readings_visit_place_id_cdf3fe2b_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.readings_watchedfile
    ADD CONSTRAINT readings_watchedfile_garden_id_7ef3304a_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.records_archivepart
    ADD CONSTRAINT records_archivepart_archive_id_63596272_fk_records_i FOREIGN KEY (archive_id) REFERENCES public.records_incomingarchive(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.records_incomingarchive
    ADD CONSTRAINT records_incomingarchive_garden_id_859fc562_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.records_incomingarchive
    ADD CONSTRAINT records_incomingarchive_user_id_bf6b7c8b_fk_gardens_user_id FOREIGN KEY (user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.seed_cropchoice
    ADD CONSTRAINT seed_cropchoice_garden_id_672e9d06_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.seed_packet
    ADD CONSTRAINT seed_packet_garden_id_9a7fe9e9_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_count
    ADD CONSTRAINT sowings_count_sowing_id_96c80c3b_fk_sowings_sowing_id FOREIGN KEY (sowing_id) REFERENCES public.sowings_sowing(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_historicalcount
    ADD CONSTRAINT sowings_historicalco_history_user_id_0b6d6b15_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_historicalintention
    ADD CONSTRAINT sowings_historicalin_history_user_id_0eb9d5ce_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_historicalsowing
    ADD CONSTRAINT sowings_historicalso_history_user_id_1e02187d_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_historicalstep
    ADD CONSTRAINT sowings_historicalst_history_user_id_8e7ca37a_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_intention
    ADD CONSTRAINT sowings_intention_entered_by_id_e8249ab4_fk_gardens_user_id FOREIGN KEY (entered_by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_intention
    ADD CONSTRAINT sowings_intention_made_id_7fa8f1aa_fk_sowings_sowing_id FOREIGN KEY (made_id) REFERENCES public.sowings_sowing(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_intention
    ADD CONSTRAINT sowings_intention_place_id_bbaeda3b_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_sowing
    ADD CONSTRAINT sowings_sowing_entered_by_id_4da55090_fk_gardens_user_id FOREIGN KEY (entered_by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_sowing
    ADD CONSTRAINT sowings_sowing_packet_id_c95a9dcf_fk_seed_packet_id FOREIGN KEY (packet_id) REFERENCES public.seed_packet(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_sowing
    ADD CONSTRAINT sowings_sowing_place_id_4f182a2c_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_sowing
    ADD CONSTRAINT sowings_sowing_sown_in_id_95c98c23_fk_places_place_id FOREIGN KEY (sown_in_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_step
    ADD CONSTRAINT sowings_step_left_id_634b6de2_fk_places_place_id FOREIGN KEY (left_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_step
    ADD CONSTRAINT sowings_step_place_id_eeaf57fe_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.sowings_step
    ADD CONSTRAINT sowings_step_sowing_id_fcd036be_fk_sowings_sowing_id FOREIGN KEY (sowing_id) REFERENCES public.sowings_sowing(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_by_id_987b1756_fk_gardens_user_id FOREIGN KEY (by_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_ended_id_d5b98640_fk_places_coverperiod_id FOREIGN KEY (ended_id) REFERENCES public.places_coverperiod(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_garden_id_ddb1dcaf_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_operation_id_1d3d4225_fk_places_operation_id FOREIGN KEY (operation_id) REFERENCES public.places_operation(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_period_id_0ce3db5e_fk_places_coverperiod_id FOREIGN KEY (period_id) REFERENCES public.places_coverperiod(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_place_id_bb9069cd_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_planting_id_65435b69_fk_plants_planting_id FOREIGN KEY (planting_id) REFERENCES public.plants_planting(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_step_id_b41936b3_fk_sowings_step_id FOREIGN KEY (step_id) REFERENCES public.sowings_step(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_answer
    ADD CONSTRAINT today_answer_tubers_id_d875ebd8_fk_places_tubertray_id FOREIGN KEY (tubers_id) REFERENCES public.places_tubertray(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.today_digestwish
    ADD CONSTRAINT today_digestwish_membership_id_b9fd4534_fk_gardens_m FOREIGN KEY (membership_id) REFERENCES public.gardens_membership(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.trials_germinationtrial
    ADD CONSTRAINT trials_germinationtrial_garden_id_7b9b10e4_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.trials_historicalgerminationtrial
    ADD CONSTRAINT trials_historicalger_history_user_id_5cf123a5_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.trials_historicaltrialcount
    ADD CONSTRAINT trials_historicaltri_history_user_id_617e03ec_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.trials_historicaltrialbatch
    ADD CONSTRAINT trials_historicaltri_history_user_id_aa39edc8_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.trials_trialbatch
    ADD CONSTRAINT trials_trialbatch_packet_id_81c76141_fk_seed_packet_id FOREIGN KEY (packet_id) REFERENCES public.seed_packet(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.trials_trialbatch
    ADD CONSTRAINT trials_trialbatch_place_id_79dc5bfe_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.trials_trialbatch
    ADD CONSTRAINT trials_trialbatch_trial_id_484bd542_fk_trials_ge FOREIGN KEY (trial_id) REFERENCES public.trials_germinationtrial(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.trials_trialcount
    ADD CONSTRAINT trials_trialcount_batch_id_c39ffb39_fk_trials_trialbatch_id FOREIGN KEY (batch_id) REFERENCES public.trials_trialbatch(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.upkeep_alert
    ADD CONSTRAINT upkeep_alert_garden_id_f925f388_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.usersessions_usersession
    ADD CONSTRAINT usersessions_usersession_user_id_af5e0a6d_fk_gardens_user_id FOREIGN KEY (user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.weather_dailyweather
    ADD CONSTRAINT weather_dailyweather_garden_id_bb840071_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.weather_historicaldailyweather
    ADD CONSTRAINT weather_historicalda_history_user_id_1ea335b3_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.weather_weatherreport
    ADD CONSTRAINT weather_weatherreport_garden_id_5d911b21_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.windows_calendarlink
    ADD CONSTRAINT windows_calendarlink_membership_id_4b3be596_fk_gardens_m FOREIGN KEY (membership_id) REFERENCES public.gardens_membership(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.work_failure
    ADD CONSTRAINT work_failure_garden_id_0db7ab09_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.work_failure
    ADD CONSTRAINT work_failure_place_id_5e83df88_fk_places_place_id FOREIGN KEY (place_id) REFERENCES public.places_place(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.work_worked
    ADD CONSTRAINT work_worked_garden_id_9076aa12_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.years_historicalsign
    ADD CONSTRAINT years_historicalsign_history_user_id_464cd6e9_fk_gardens_u FOREIGN KEY (history_user_id) REFERENCES public.gardens_user(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.years_sign
    ADD CONSTRAINT years_sign_garden_id_7268d49c_fk_gardens_garden_id FOREIGN KEY (garden_id) REFERENCES public.gardens_garden(id) DEFERRABLE INITIALLY DEFERRED;

require "zlib"

module UseCases
  # The calendars of a person or a place. Reading one happens in the background: what came stands in `incoming` until it
  # is read through; only then what was known before is replaced, by the difference.
  class Calendars < Base
    # What lies this far back stays, for looking at.
    BACK_DAYS = 31
    FETCH_EVERY_S = 900
    RENEW_DAYS = 7
    MOST_BYTES = Core::ICalendar::Reader::MOST_BYTES
    BATCH = 1_000
    MOST_CALENDARS = 20

    # @param kind [String] file, address or by_hand
    # @param content [String, nil] the file's bytes; address [String, nil]
    def add(id:, name:, kind:, person_id: nil, place_id: nil, content: nil, address: nil)
      name = Core::Title.read(name, pointer: "/name", missing: "Give the calendar a name.")
      address = checked_address(address) if kind == "address"
      content = checked_content(content) if kind == "file"
      once(Records::Calendar, id, within: person_id || place_id) do
        owned = Records::Calendar.where(person_id: person_id, place_id: place_id)
        if owned.count >= MOST_CALENDARS
          raise Core::Conflict.new("#{MOST_CALENDARS} calendars are the most. Remove one first.", code: "too-many")
        end

        Records::Calendar.create!(
          id: id, person_id: person_id, place_id: place_id, name: name, kind: kind, address: address,
          due_at: (now if kind == "address"), **waiting(content),
          **((kind == "by_hand") ? {expanded_until: Core::Recurrence::Run.horizon(now), succeeded_at: now} : {})
        )
      end
    end

    # Takes a newer file in place of the last one.
    def replace(id:, content:)
      content = checked_content(content)
      write do
        calendar = find(Records::Calendar.light.lock, id)
        unless calendar.kind == "file"
          raise Core::Conflict.new("Only a calendar made from a file takes another file.", code: "kind")
        end

        Records::Calendar.where(id: id).update_all(waiting(content).merge(lock_version: calendar.lock_version + 1))
      end
    end

    # Reads the address again now.
    def read_again(id)
      write do
        Records::Calendar.where(id: id, kind: "address").update_all(
          due_at: now, checked_at: nil, last_error: nil, claim: nil, leased_until: nil
        )
      end
    end

    # Stops reading; what was known before stays.
    def cancel(id)
      write do
        Records::Calendar.where(id: id, state: %w[waiting running]).update_all(
          state: "cancelled", incoming: nil, claim: nil, leased_until: nil
        )
      end
    end

    def remove(id)
      write do
        next unless Records::Calendar.exists?(id: id)

        Records::BusyEntry.where(calendar_id: id).delete_all
        if Records::BusySpan.where(calendar_id: id).exists?
          Records::BusySpan.where(calendar_id: id).in_batches(of: BATCH).delete_all
        end
        Records::Calendar.where(id: id).delete_all
      end
    end

    # A busy time by hand, on the owner's wall.
    # @param rule [String, nil] how it repeats
    def add_entry(id:, calendar_id:, local_start:, local_end:, title: nil, tentative: false, rule: nil)
      from, to =
        Core::WallTime.parse(local_start, pointer: "/localStart"),
        Core::WallTime.parse(local_end, pointer: "/localEnd")
      if to <= from
        raise Core::Invalid.new(
          "It ends at #{Core::Words.clock(to)} before it begins at #{Core::Words.clock(from)}. Give an end after the " \
            "start.",
          pointer: "/localEnd"
        )
      end

      Core::Recurrence::Rule.parse(rule) if rule
      once(Records::BusyEntry, id, within: calendar_id) do
        calendar = find(Records::Calendar.light.lock, calendar_id)
        unless calendar.kind == "by_hand"
          raise Core::Conflict.new("Busy times are entered in a calendar kept by hand.", code: "kind")
        end

        Records::BusyEntry.create!(
          id: id, calendar_id: calendar_id, title: words(title), local_start: from.to_time, local_end: to.to_time,
          tentative: tentative, rule: rule
        )
        expand_entries(calendar)
      end
    end

    def remove_entry(calendar_id:, entry_id:)
      write do
        calendar = find(Records::Calendar.light.lock, calendar_id)
        Records::BusyEntry.where(id: entry_id, calendar_id: calendar_id).delete_all
        expand_entries(calendar)
      end
    end

    # --- For the worker ---

    def self.queue(clock: Clock) =
      Queue.new(Records::Calendar, aside: {state: "set_aside", incoming: nil, due_at: nil}, clock: clock)

    # Reads one waiting calendar. @return [Boolean] whether there was one
    def read_next
      queue
        .work(Records::Calendar.to_read(now).order(:due_at, :id), state: "running", done: 0) do |calendar|
          CalendarReading.new(calendar, queue, clock: @clock).run
        end
        .positive?
    end

    # Fetches one address that is due. @param fetcher [#get]
    # @return [Boolean] whether there was one
    def fetch_next(fetcher)
      queue.work(Records::Calendar.to_fetch(now).order(:due_at, :id)) do |calendar|
        answer = fetcher.get(calendar.address, etag: calendar.etag, last_modified: calendar.last_modified)
        queue.settle(calendar, due_at: now + FETCH_EVERY_S, checked_at: now, last_error: nil, **taken(answer))
      rescue Fetching::Failed => error
        queue.settle(calendar, due_at: now + FETCH_EVERY_S, checked_at: now, last_error: error.message[0, 500])
      end.positive?
    end

    # Expands anew what does not reach far enough any more.
    # @param faults [Faults] in which each calendar stands alone
    def renew(faults = Faults.new(clock: @clock))
      early = Core::Recurrence::Run.horizon(now) - RENEW_DAYS * 86_400
      write do
        Records::Calendar
          .where(state: "still")
          .where("expanded_until < ?", early)
          .where.not(source: nil)
          .update_all("incoming = source, state = 'waiting'")
      end
      Records::Calendar
        .light
        .where(kind: "by_hand")
        .where("expanded_until < ?", early)
        .find_each do |calendar|
          faults.attempt("calendar_by_hand", calendar.id) do
            write { expand_entries(Records::Calendar.light.lock.find(calendar.id)) }
          end
        end
    end

    # Replaces what is known of a calendar by the difference, in short transactions.
    # @param spans [Array<Core::FreeBusy::Calendar::Span>]
    # @param at [Time] since when what is new is known
    def self.replace_spans(calendar, spans, at:)
      wish = spans.to_h do |span|
        row(calendar, span)
          .merge(known_at: at)
          .then { |row| [row.values_at(:starts_min, :ends_min, :kind, :title_key), row] }
      end
      known = Records::BusySpan.where(calendar_id: calendar.id).pluck(:starts_min, :ends_min, :kind, :title_key)
      (known - wish.keys).each_slice(BATCH) do |some|
        tuples = some.map { |key| "(#{key.join(",")})" }.join(",")
        Records::Base.write do
          Records::BusySpan
            .where(calendar_id: calendar.id)
            .where("(starts_min, ends_min, kind, title_key) in (#{tuples})")
            .delete_all
        end
      end
      wish
        .except(*known)
        .values
        .each_slice(BATCH) { |some| Records::Base.write { Records::BusySpan.insert_all(some) } }
    end

    def self.row(calendar, span)
      title = Core::Title.plain(span.title)[0, 200]
      {
        calendar_id: calendar.id, owner_id: calendar.owner_id, starts_min: Core::Spans.minute(span.starts_s),
        ends_min: Core::Spans.minute_after(span.ends_s), kind: Records::BusySpan::KINDS.fetch(span.kind),
        title_key: Zlib.crc32(title), title: title.empty? ? nil : title
      }
    end

    private

    def waiting(content)
      return {} unless content

      {incoming: content, state: "waiting", done: 0, total: nil, last_error: nil, claim: nil, leased_until: nil}
    end

    def checked_content(content)
      raise Core::Invalid.new("Choose a calendar file (.ics).", pointer: "/content") if content.to_s.empty?
      if content.bytesize > MOST_BYTES
        raise Core::Invalid.new("This file is larger than #{MOST_BYTES / 1_000_000} MB.", pointer: "/content")
      end

      # What is no calendar at all is said at once; the rest when the worker has read it.
      Core::ICalendar::Reader.refuse_other(content)
      content
    rescue Core::Invalid => error
      raise Core::Invalid.new(error.message, pointer: "/content", code: "unreadable")
    end

    def checked_address(address)
      Fetching.check(address)
    rescue Fetching::Failed => error
      raise Core::Invalid.new(error.message, pointer: "/address")
    end

    def queue = @queue ||= Calendars.queue(clock: @clock)

    def taken(answer)
      return {succeeded_at: now} if answer.unchanged

      {
        succeeded_at: now, etag: answer.etag, last_modified: answer.last_modified, incoming: answer.body,
        state: "waiting", done: 0, total: nil
      }
    end

    def expand_entries(calendar)
      zone = Core::Zone[(calendar.person || calendar.place).time_zone]
      spans = Records::BusyEntry.where(calendar_id: calendar.id).flat_map { |entry| spans_of(entry, zone) }
      Calendars.replace_spans(calendar, spans, at: now)
      Records::Calendar.where(id: calendar.id).update_all(
        expanded_until: Core::Recurrence::Run.horizon(now), succeeded_at: now, lock_version: calendar.lock_version + 1
      )
    end

    def spans_of(entry, zone)
      start = Core::WallTime.of_fields(entry.local_start)
      length_s = Core::WallTime.of_fields(entry.local_end).seconds - start.seconds
      starts = Core::Recurrence::Expander.new(
        rule: entry.rule && Core::Recurrence::Rule.parse(entry.rule), start: start, zone: zone
      ).between(now - BACK_DAYS * 86_400 - length_s, Core::Recurrence::Run.horizon(now))
      starts.map do |instant|
        finish = zone.instant_s(zone.wall(instant).seconds + length_s)
        Core::FreeBusy::Calendar::Span.new(
          starts_s: instant.to_i, ends_s: finish, kind: entry.tentative ? :tentative : :busy, title: entry.title
        )
      end
    end
  end
end

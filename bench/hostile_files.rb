# Calendars and mails made to cost as much as they can, each as large as is taken. Made here, so that none is shipped.
module HostileFiles
  FULL = Core::ICalendar::Reader::MOST_BYTES - 50_000
  MOST_EVENTS = 10_000

  module_function

  def calendar(*parts) = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n#{parts.join}END:VCALENDAR\r\n"

  def event(uid, *lines) =
    "BEGIN:VEVENT\r\nUID:#{uid}\r\nDTSTAMP:20261101T000000Z\r\n#{lines.join("\r\n")}\r\nEND:VEVENT\r\n"

  def events(number, *lines) = Array.new(number) { |i| event("a#{i}", *lines) }

  def stamp(time) = time.strftime("%Y%m%dT%H%M%SZ")

  def zone(changes)
    observances = Array.new(changes) do |i|
      "BEGIN:STANDARD\r\nDTSTART:1970010#{i % 7 + 1}T0#{i % 10}0000\r\nRRULE:FREQ=WEEKLY\r\nTZOFFSETFROM:+0100\r\n" \
        "TZOFFSETTO:+0200\r\nEND:STANDARD\r\n"
    end
    "BEGIN:VTIMEZONE\r\nTZID:Odd\r\n#{observances.join}END:VTIMEZONE\r\n"
  end

  def changes(number)
    first = Time.utc(2026, 12, 1, 10)
    Array.new(number) do |i|
      (first + i * 86_400).then do |at|
        event(
          "a", "RECURRENCE-ID;RANGE=THISANDFUTURE:#{stamp(at)}", "DTSTART:#{stamp(yield(at, i))}", "DURATION:PT1H"
        )
      end
    end
  end

  DAILY = event("a", "DTSTART:20200101T100000Z", "DURATION:PT1H", "RRULE:FREQ=DAILY")
  AT = "DTSTART:20261201T100000Z"

  # @yield name and text of each
  def each
    rules.merge(dates, lines).each { |name, make| yield name, make.call }
    mails.each { |name, make| yield "mail: #{name}", make.call }
  end

  def rules
    {
      "a zone of 50 weekly changes" => -> { calendar(zone(50), event("a", "DTSTART;TZID=Odd:20261201T100000")) },
      "a zone of 200 weekly changes" => -> { calendar(zone(200), event("a", "DTSTART;TZID=Odd:20261201T100000")) },
      "rules that never come" => -> do
        calendar(*events(MOST_EVENTS, AT, "RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"))
      end,
      "rules without an end" => -> do
        calendar(*events(MOST_EVENTS, "DTSTART:20200101T100000Z", "DURATION:PT1H", "RRULE:FREQ=DAILY"))
      end,
      "rules counted from 1900" => -> do
        calendar(*events(MOST_EVENTS, "DTSTART:19000101T100000Z", "DURATION:PT1H", "RRULE:FREQ=DAILY;COUNT=90000"))
      end,
      "rules of 24 times a day" => -> do
        calendar(*events(3_000, AT, "DURATION:PT1H", "RRULE:FREQ=DAILY;BYHOUR=#{[*0..23].join(",")}"))
      end,
      "rules of positions in a year" => -> do
        calendar(*events(8_000, AT, "RRULE:FREQ=YEARLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1,1,2,3,100"))
      end,
      "rules in a zone of its own" => -> do
        calendar(zone(3), *events(10_000, "DTSTART;TZID=Odd:20261201T100000", "DURATION:P1D", "RRULE:FREQ=WEEKLY"))
      end
    }
  end

  def dates
    {
      "28,000 further dates" => -> do
        calendar(event("a", AT, "RDATE:#{Array.new(28_000) { |i| stamp(Time.utc(2026, 12) + i * 3_600) }.join(",")}"))
      end,
      "further dates to the brim" => -> do
        calendar(event("a", AT, "RDATE:#{Array.new(FULL / 17) { |i| stamp(Time.utc(2026, 12) + i * 60) }.join(",")}"))
      end,
      "dates left out, a line each" => -> do
        calendar(
          event(
            "a", AT, "RRULE:FREQ=DAILY",
            *Array.new(FULL / 25) { |i| "EXDATE:#{stamp(Time.utc(2026, 12, 1, 10) + i * 86_400)}" }
          )
        )
      end,
      "390 changes from a date on" => -> { calendar(DAILY, *changes(390) { |at, _| at + 3_600 }) },
      "390 changes that move far" => -> { calendar(DAILY, *changes(390) { |at, i| at + i * 30 * 86_400 }) },
      "changes of single dates" => -> do
        calendar(
          DAILY,
          *Array.new(MOST_EVENTS) do |i|
            (Time.utc(2026, 12, 1, 10) + i * 86_400).then do |at|
              event("a", "RECURRENCE-ID:#{stamp(at)}", "DTSTART:#{stamp(at)}")
            end
          end
        )
      end,
      "one name for all events" => -> do
        calendar(*Array.new(MOST_EVENTS) { event("a", AT, "RRULE:FREQ=DAILY;COUNT=3") })
      end,
      "free/busy to the brim" => -> do
        calendar(
          "BEGIN:VFREEBUSY\r\n",
          *Array.new(FULL / 2_240) { "FREEBUSY:#{"20261201T100000Z/PT1H," * 100}20261201T100000Z/PT1H\r\n" },
          "END:VFREEBUSY\r\n"
        )
      end,
      "an ordinary large calendar" => -> do
        calendar(
          *Array.new(FULL / 690) do |i|
            event(
              "e#{i}",
              "DTSTART;TZID=Europe/Oslo:202612#{format("%02d", i % 28 + 1)}T100000",
              "DTEND;TZID=Europe/Oslo:202612#{format("%02d", i % 28 + 1)}T110000",
              "SUMMARY:Meeting #{i}",
              "DESCRIPTION:#{"word " * 80}",
              "ATTENDEE;CN=\"Ines Torvald\";PARTSTAT=ACCEPTED:mailto:ines@skerrybuoy.example",
              "TRANSP:OPAQUE"
            )
          end
        )
      end
    }
  end

  def lines
    {
      "short lines" => -> { calendar("A:\r\n" * (FULL / 4)) },
      "short lines that are read" => -> { calendar(event("a", *(["UID:"] * (FULL / 6)))) },
      "parameters" => -> { calendar(event("a", *(["SUMMARY#{";A=B" * 200}:x"] * (FULL / 812)))) },
      "attendees" => -> { calendar(event("a", AT, *(["ATTENDEE:a@b.c"] * (FULL / 16)))) },
      "components" => -> { calendar("BEGIN:A\r\nEND:A\r\n" * (FULL / 16)) },
      "folds" => -> { calendar(event("a", "SUMMARY:#{"x\r\n " * (FULL / 4)}", AT)) },
      "one long line" => -> { calendar(event("a", "SUMMARY:#{"\\n" * (FULL / 2)}", AT)) },
      "a line without an end" => -> { "BEGIN:VCALENDAR\r\n#{"X" * FULL}" },
      "names that all differ" => -> { calendar(Array.new(FULL / 11) { |i| "N#{i}:x\r\n" }.join[0, FULL]) },
      "broken events" => -> { calendar(*Array.new(FULL / 92) { event("a", "DTSTART:20261301T100000Z") }) },
      "letters of another alphabet" => -> do
        calendar(event("a", "SUMMARY:x", AT)).b.sub("SUMMARY:x", "SUMMARY:#{"\xE9" * FULL}".b)
      end
    }
  end

  def mail(head, body) = "From: x@x.example\r\nSubject: x\r\nMIME-Version: 1.0\r\n#{head}\r\n\r\n#{body}"

  def message(*lines) = calendar.sub("VERSION:2.0\r\n", "VERSION:2.0\r\nMETHOD:REQUEST\r\n").sub(
    "END:VCALENDAR", "#{event("a", AT, "ORGANIZER:mailto:o@x.example", *lines)}END:VCALENDAR"
  )

  def mails
    most = Mailing::Incoming::MOST_BYTES - 50_000
    ical = Mailing::Incoming::CALENDAR_BYTES - 1_000
    {
      "700 parts in each other" => -> do
        mail(
          *(0...700).reduce(["Content-Type: text/plain", "x"]) do |(head, body), i|
            ["Content-Type: multipart/mixed; boundary=b#{i}", "--b#{i}\r\n#{head}\r\n\r\n#{body}\r\n--b#{i}--\r\n"]
          end
        )
      end,
      "parts to the brim" => -> do
        mail("Content-Type: multipart/mixed; boundary=b", "#{"--b\r\n\r\nx\r\n" * (most / 10)}--b--\r\n")
      end,
      "a part of 10 MB" => -> do
        mail("Content-Type: text/calendar\r\nContent-Transfer-Encoding: base64", ["x" * (most * 3 / 4)].pack("m"))
      end,
      "quoted-printable to the brim" => -> do
        mail(
          "Content-Type: text/calendar\r\nContent-Transfer-Encoding: quoted-printable", "=3D=3D=3D=\r\n" * (most / 12)
        )
      end,
      "a head of 99 KB of addresses" => -> do
        mail("To: #{"a@x.example, " * 7_500}b@x.example\r\nContent-Type: text/calendar", message)
      end,
      "a head of 99 KB of parameters" => -> { mail("Content-Type: text/calendar#{"; a=b" * 18_000}", message) },
      "a zone of 200 weekly changes" => -> do
        mail(
          "Content-Type: text/calendar",
          message.sub("BEGIN:VEVENT", "#{zone(200)}BEGIN:VEVENT").sub(
            "DTSTART:20261201T100000Z", "DTSTART;TZID=Odd:20261201T100000"
          )
        )
      end,
      "further dates to the brim" => -> do
        mail(
          "Content-Type: text/calendar",
          message("RDATE:#{Array.new(ical / 17) { |i| stamp(Time.utc(2026, 12) + i * 60) }.join(",")}")
        )
      end,
      "attendees to the brim" => -> do
        mail("Content-Type: text/calendar", message(*(["ATTENDEE:a@b.c"] * (ical / 16))))
      end
    }
  end
end

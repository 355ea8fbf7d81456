require_relative "../app_helper"
require "open3"
require "mail"
require "icalendar"

# Meetings others organise, as their programs write them. Invitations, changes and cancellations follow RFC 5546 3.2.2
# and 3.2.5.
RSpec.describe UseCases::OutsideMeetings, at: Stage::STORY do
  let(:ines) { person("Ines Torvald") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:rule) { "RRULE:FREQ=WEEKLY;COUNT=4" }

  before { ines }

  def ical(
    method: "REQUEST", sequence: 0, start: "20261201T100000", title: "Port council",
    attendees: ["ines@skerrybuoy.example"], more: [rule], stamp: clock.now
  )
    [
      "BEGIN:VCALENDAR",
      "VERSION:2.0",
      "PRODID:-//Port//EN",
      "METHOD:#{method}",
      "BEGIN:VEVENT",
      "UID:council-1@port.example",
      "SEQUENCE:#{sequence}",
      "DTSTAMP:#{stamp.strftime("%Y%m%dT%H%M%SZ")}",
      "DTSTART;TZID=Europe/Oslo:#{start}",
      "DURATION:PT1H",
      "SUMMARY:#{title}",
      "LOCATION:Harbour office",
      "ORGANIZER;CN=Olav Dahl:mailto:olav@port.example",
      *attendees.map { |address| "ATTENDEE;RSVP=TRUE;PARTSTAT=NEEDS-ACTION:mailto:#{address}" },
      *more,
      "END:VEVENT",
      "END:VCALENDAR",
      ""
    ].join("\r\n")
  end

  def mail(ical, from: "olav@port.example")
    message = Mail.new(from: from, to: Settings.mail_from, subject: "Invitation")
    message.text_part = Mail::Part.new(content_type: "text/plain", body: "See the calendar part. #{rand}")
    message.add_part(Mail::Part.new(content_type: "text/calendar; method=REQUEST; charset=UTF-8", body: ical))
    UseCases::IncomingMails.new(clock: clock).keep(sender: from, source: message.encoded)
    UseCases::IncomingMails.new(clock: clock).read_next
    Records::IncomingMail.order(:created_at, :id).last
  end

  def listed(who = ines) = use(Views::OutsideMeetings, who).list[:meetings]

  def spans(who = ines) =
    Loading::Availability
      .told(who, clock.now, clock.now + 60 * 86_400)
      .map { |span| [span[:starts_at].iso8601, span[:kind]] }

  def last_reply
    mail = Mail.new(Records::Mail.where("reason like 'reply:%'").order(:created_at, :id).last.source)
    [mail, Core::Invitation::Message.read(mail.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded)]
  end

  it "stand as tentative until answered, then busy, and do not block once declined" do
    expect(mail(ical)).to have_attributes(state: "taken", outcome: "applied")
    expect(listed.first).to include(
      title: "Port council", organizer: "Olav Dahl", answer: "none",
      sentence: "Every Tuesday, 10:00–11:00 Oslo time, 4 meetings, the last on Tuesday 22 December 2026"
    )
    expect(spans).to eq [
      %w[2026-12-01T09:00:00Z tentative], %w[2026-12-08T09:00:00Z tentative], %w[2026-12-15T09:00:00Z tentative],
      %w[2026-12-22T09:00:00Z tentative]
    ].map { |at, kind| [at, kind.to_sym] }
    answer("accepted")
    expect(spans.map(&:last).uniq).to eq [:busy]
    answer("declined", recurrence_at: Time.utc(2026, 12, 8, 9))
    expect(spans.map(&:first)).to eq %w[2026-12-01T09:00:00Z 2026-12-15T09:00:00Z 2026-12-22T09:00:00Z]
    answer("declined")
    expect(listed.first[:answer]).to eq "declined"
  end

  def answer(word, **rest)
    clock.now += 1
    mine = Records::OutsideMeeting.find_by(person_id: ines)
    use(UseCases::OutsideAnswers, ines).answer(id: mine.id, answer: word, **rest)
  end

  # RFC 5546 3.2.3; on behalf: RFC 5322 3.6.2, RFC 5545 3.2.18. The organizer's side is Entry, checked by RFC 5546's
  # conversations.
  it "are answered by a reply the organizer's program takes" do
    mail(ical(more: []))
    organizer = Core::Invitation::Entry.new(:organizer)
    organizer.take(Core::Invitation::Message.read(ical(more: [])), sender: "olav@port.example", outgoing: true)
    answer("tentative", note: "If the ferry runs; perhaps")
    sent, message = last_reply
    expect([sent.to, sent.from, sent.sender]).to eq [
      ["olav@port.example"], ["ines@skerrybuoy.example"], Settings.mail_from
    ]
    expect(organizer.take(message, sender: sent.from.first)).to eq :applied
    expect([organizer.attendees, message.events.first.comment]).to eq [
      {"ines@skerrybuoy.example" => "tentative"}, "If the ferry runs; perhaps"
    ]
    answer("tentative", note: "If the ferry runs; perhaps")
    expect(Records::Mail.where("reason like 'reply:%'").count).to eq 1
    # As the gem icalendar and python-icalendar (Debian) read it.
    expect(
      Icalendar::Calendar
        .parse(sent.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded)
        .first
        .events
        .first
        .attendee
        .first
        .ical_params[
        "partstat"
      ]
    ).to eq ["TENTATIVE"]
    script =
      "import sys\nfrom icalendar import Calendar\nevent=[part for part in " \
        "Calendar.from_ical(sys.stdin.buffer.read()).walk() if part.name=='VEVENT'][0]\nprint(event['UID'], " \
        "event['ATTENDEE'].params['PARTSTAT'], event['ATTENDEE'].params['SENT-BY'])"
    output, = Open3.capture2(
      "/usr/bin/python3", "-c", script,
      stdin_data: sent.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded
    )
    expect(output.strip).to eq "council-1@port.example TENTATIVE mailto:#{Settings.mail_from}"
  end

  it "can be offered another time, once each, which changes nothing here until it is taken" do
    mail(ical)
    row = Records::OutsideMeeting.first.id
    before = spans
    offer = ->(**wish) { use(UseCases::OutsideAnswers, ines).offer(id: row, **wish) }
    2.times do
      offer.call(local_start: "2026-12-09T13:00", recurrence_at: Time.utc(2026, 12, 8, 9), note: "After lunch")
    end
    sent = Records::Mail.where("reason like 'offer:%'").to_a
    message = Core::Invitation::Message.read(
      Mail.new(sent.first.source).all_parts.find { |part| part.mime_type == "text/calendar" }.decoded
    )
    event = message.events.first
    expect(
      [
        sent.size, sent.first.recipient, message.method, event.recurrence_id.instant_s, event.start.instant_s,
        event.length
      ]
    ).to eq [
      1, "olav@port.example", "counter", Time.utc(2026, 12, 8, 9).to_i, Time.utc(2026, 12, 9, 12).to_i, [0, 3_600]
    ]
    expect(spans).to eq before
    expect { offer.call(local_start: "2020-01-01T10:00") }.to raise_error(Core::Invalid) { |error|
      expect(error.pointer).to eq "/localStart"
    }
    expect { offer.call(local_start: "2026-12-09T13:00", recurrence_at: Time.utc(2026, 12, 9, 9)) }.to raise_error(
      Core::Invalid
    ) { |error| expect(error.pointer).to eq "/recurrenceAt" }
  end

  it "move, and are called off, only by later messages of their organizer" do
    mail(ical(more: []))
    outcomes = [
      ical(more: [], start: "20261202T140000", sequence: 2), ical(more: [], start: "20261203T140000", sequence: 1),
      ical(more: [], method: "CANCEL", sequence: 3)
    ].zip(%w[olav@port.example olav@port.example thief@x.example])
      .map { |text, from| mail(text, from: from).outcome }
    expect(outcomes).to eq %w[applied ignored-stale not-organizer]
    expect(spans).to eq [["2026-12-02T13:00:00Z", :tentative]]
    expect(mail(ical(more: [], method: "CANCEL", sequence: 3)).outcome).to eq "applied"
    expect([spans, listed.first]).to match [[], include(called_off: true)]
    use(described_class, ines).dismiss(listed.first[:id])
    expect(listed).to be_empty
  end

  it "are shown from what is kept of them, and forget neither how they began nor what stands, however often they " \
    "change" do
    mail(ical(more: ["RRULE:FREQ=WEEKLY;COUNT=3"]))
    120.times do |i|
      mail(
        ical(
          more: ["RRULE:FREQ=WEEKLY;COUNT=3"], sequence: i + 1, start: "202612#{format("%02d", i % 20 + 1)}T140000"
        )
      )
    end
    row = Records::OutsideMeeting.first
    expect([row.messages.size, row.called_off, listed.first[:dates].size]).to eq [1, false, 3]
    row.update_columns(messages: [{"from" => "x", "ical" => "no calendar"}])
    expect(listed.first[:dates].size).to eq 3
  end

  it "are moved by nobody who only knows the organizer, and whoever tries is kept aside with a word" do
    mail(ical(more: []))
    kept = mail(ical(more: [], start: "20261202T140000", sequence: 9), from: "thief@x.example")
    expect([kept.state, kept.remark]).to match [
      "aside", /thief@x.example wants to change .*olav@port.example organises/
    ]
    expect(spans).to eq [["2026-12-01T09:00:00Z", :tentative]]
  end

  it "come to whoever handed them on, and to nobody whom they do not ask" do
    wen
    expect(mail(ical(attendees: ["else@port.example"]), from: "wen@skerrybuoy.example").outcome).to eq "applied"
    expect(
      mail(ical(attendees: ["else@port.example"], stamp: clock.now + 5), from: "olav@port.example").outcome
    ).to eq "not-ours"
    expect([listed(wen).size, listed.size]).to eq [1, 0]
    expect(listed(wen).first[:dates].first[:local_start].to_s).to start_with "2026-12-01T05:00"
  end

  it "come as a file, which says what is wrong when it is none" do
    use(described_class, ines).add_file(ical)
    expect(listed.size).to eq 1
    {"no calendar" => "unreadable", ical(method: "REPLY") => "method", ical => "old"}.each do |content, code|
      expect { use(described_class, ines).add_file(content) }.to raise_error(Core::Invalid) { |error|
        expect([error.code, error.pointer]).to eq [code, "/content"]
      }
    end
  end

  it "do not make a person known: an invitation does not tell when somebody is free" do
    mail(ical)
    people = Loading::Availability.new(
      people: {
        ines => :required
      },
      from: clock.now,
      to: clock.now + 86_400,
      now: clock.now
    ).people
    expect(people.first.known).to be false
  end

  it "reach as far ahead as everybody's calendars as time goes on, with their sheets" do
    mail(ical(more: ["RRULE:FREQ=WEEKLY"]))
    id = key
    use(UseCases::OutsideSheets, ines).keep_sheets(id: Records::OutsideMeeting.first.id, series_id: id)
    last = -> do
      [Records::BusySpan.maximum(:ends_min) * 60, Records::Meeting.where(series_id: id).maximum(:starts_at).to_i]
    end
    before = last.call
    described_class.new(clock: clock).renew
    expect(last.call).to eq before
    clock.now += 60 * 86_400
    described_class.new(clock: clock).renew
    spans_until, sheets_until = last.call
    expect(spans_until - before[0]).to be_between(7 * 7 * 86_400, 9 * 7 * 86_400)
    expect(sheets_until - before[1]).to be_between(7 * 7 * 86_400, 9 * 7 * 86_400)
  end

  describe "with a sheet here" do
    let(:row) { Records::OutsideMeeting.find_by(person_id: ines) }
    let(:series_id) { key.tap { |id| use(UseCases::OutsideSheets, ines).keep_sheets(id: row.id, series_id: id) } }

    def walls =
      Records::Meeting
        .where(series_id: series_id, state: "planned")
        .in_order
        .map { |meeting| meeting.starts_at.iso8601 }

    before { mail(ical) }

    it "has its dates, keeps what was prepared when they move, and sends no invitation of its own" do
      expect(walls).to eq %w[2026-12-01T09:00:00Z 2026-12-08T09:00:00Z 2026-12-15T09:00:00Z 2026-12-22T09:00:00Z]
      second = meeting_ids(series_id)[1]
      topic(second, ines, "Berths")
      mail(
        [
          ical(sequence: 1).delete_suffix("END:VCALENDAR\r\n"),
          "BEGIN:VEVENT\r\nUID:council-1@port.example\r\nSEQUENCE:1\r\nDTSTAMP:20261124T090000Z\r\n" \
            "RECURRENCE-ID;TZID=Europe/Oslo:20261208T100000\r\nDTSTART;TZID=Europe/Oslo:20261209T130000\r\n" \
            "DURATION:PT1H\r\nSUMMARY:Port council\r\nORGANIZER:mailto:olav@port.example\r\n" \
            "ATTENDEE:mailto:ines@skerrybuoy.example\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
        ].join
      )
      expect(walls).to eq %w[2026-12-01T09:00:00Z 2026-12-09T12:00:00Z 2026-12-15T09:00:00Z 2026-12-22T09:00:00Z]
      expect(sheet(second, ines)[:topics].map { |one| one[:title] }).to eq ["Berths"]
      expect { use(Views::Invitation, ines).preview(series_id: series_id) }.to raise_error(
        Core::Conflict
      ) { |error| expect(error.code).to eq "outside" }
      expect(use(Views::SeriesPage, ines).show(series_id)).to include(
        outside: "Olav Dahl", told: include(state: "told")
      )
    end

    it "is called, and found by, what it is called now" do
      version = Records::Series.find(series_id).lock_version
      mail(ical(sequence: 1, title: "Fairway board"))
      found = %w[fairway council].map { |word| use(Views::Search, ines).find_by(query: word)[:hits].size }
      expect([Records::Series.find(series_id).title, found]).to eq ["Fairway board", [1, 0]]
      expect(Records::Series.find(series_id).lock_version).to eq version
    end

    # rules.md 2: the k-th coming sheet goes to the k-th new date.
    it "keeps every sheet when all its dates become others, and puts off what has none" do
      second = meeting_ids(series_id)[1]
      topic(second, ines, "Berths")
      mail(ical(sequence: 1, start: "20261203T150000", more: ["RRULE:FREQ=WEEKLY;COUNT=3"]))
      expect(walls).to eq %w[2026-12-03T14:00:00Z 2026-12-10T14:00:00Z 2026-12-17T14:00:00Z]
      expect(Records::Meeting.find(second).starts_at.iso8601).to eq "2026-12-10T14:00:00Z"
      expect(Records::Meeting.where(series_id: series_id, state: "called_off").count).to eq 1
      expect(
        use(Views::History, ines).show(series_id)[:events].map { |event| event[:words] }
      ).to include "Moved to Thursday 10 December 2026, 15:00 by Olav Dahl"
      mail(ical(sequence: 2, start: "20261203T150000", more: ["RRULE:FREQ=WEEKLY;COUNT=5"]))
      expect(walls.size).to eq 5
    end

    it "is called off with it, is made once, and takes the answer along" do
      expect(use(UseCases::OutsideSheets, ines).keep_sheets(id: row.id, series_id: key)).to eq series_id if series_id
      answer("declined")
      expect(Records::Answer.where(person_id: ines).distinct.pluck(:answer)).to eq ["declined"]
      mail(ical(method: "CANCEL", sequence: 5))
      expect([walls, Records::Meeting.where(series_id: series_id).distinct.pluck(:called_off_reason)]).to eq [
        [], ["Called off by Olav Dahl"]
      ]
    end
  end
end

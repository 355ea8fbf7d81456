require_relative "../app_helper"
require "mail"
require "icalendar"
require "nokogiri"

# What people type, and what comes in by mail, may be meant to harm. Outgoing: no field may add a header, a tag or a
# calendar line (RFC 5322 2.2, RFC 5545 3.3.11). Incoming: kept, judged, and never more than that.
RSpec.describe "Hostile words" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:evil) { %(<img src=x onerror="alert(1)">\r\nBcc: everyone@x.example\r\nATTENDEE:mailto:thief@x.example) }

  def sent_to(person_id, series_id)
    use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id)
    taken = []
    post = Object.new
    post.define_singleton_method(:deliver) { |source:, **| taken << source }
    nil while UseCases::Outbox.new(clock: clock).deliver(post).positive?
    ::Mail.new(taken.find { |source| ::Mail.new(source).to == [Records::Person.find(person_id).email] })
  end

  def elements(mail) = Nokogiri::HTML5(mail.html_part.decoded).css("*").map(&:name).uniq

  def calendar(mail) =
    Icalendar::Calendar.parse(mail.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded).first.events

  it "stay words in an invitation, whichever field they stand in" do
    plain = sent_to(wen, series(marit, {required: wen}))
    id = series(marit, {required: wen}, title: evil, purpose: evil, place: evil)
    topic(meeting_ids(id).first, marit, evil)
    mail = sent_to(wen, id)
    expect(mail.header.fields.map(&:name)).to match_array plain.header.fields.map(&:name)
    expect([mail.bcc, mail.destinations, mail.subject.lines.size]).to eq [nil, ["wen@skerrybuoy.example"], 1]
    expect(mail.html_part.decoded).to include "&lt;img src=x"
    expect(elements(mail)).not_to include "img"
    events = calendar(mail)
    expect(events.flat_map(&:attendee).map(&:to_s).uniq).to match_array %w[
      mailto:marit@skerrybuoy.example
      mailto:wen@skerrybuoy.example
    ]
    expect(events.first.summary).to include "<img src=x"
  end

  it "stay words in the reason and the note of a later mail" do
    id = series(marit, {required: wen})
    sent_to(wen, id)
    use(UseCases::Answers, wen).keep(
      series_id: id, person_id: wen, answer: "declined", meeting_id: meeting_ids(id).first, note: evil, way: "desk",
      stamp: clock.now
    )
    state(meeting_ids(id).first, marit, "called_off", reason: evil)
    mail = sent_to(wen, id)
    expect([mail.bcc, mail.destinations]).to eq [nil, ["wen@skerrybuoy.example"]]
    expect(elements(mail)).not_to include "img"
    expect(mail.text_part.decoded).to include "<img src=x"
  end

  it "stay words in a call, in who comes instead, and in what they are mailed" do
    call = {url: "https://calls.example/\"><script>", passcode: evil[0, 60], dial_in: nil}
    expect { series(marit, {required: wen}, call: call) }.to raise_error(Core::Invalid, /whole address of the call/)
    id = series(
      marit,
      {required: wen},
      title: evil,
      place: evil,
      call: call.merge(url: "https://calls.example/'&lt;script&gt;"),
      options: {
        pass_on: true, answers_asked: true, sign_up: false, sign_up_limit: nil
      }
    )
    mail = sent_to(wen, id)
    expect(elements(mail) & %w[img script]).to be_empty
    expect(calendar(mail).first.conference.size).to eq 1
    use(UseCases::Substitutes, wen).send_instead(
      meeting_id: meeting_ids(id).first, person_id: wen, name: evil, email: "odd@harbour.example"
    )
    instead = ::Mail.new(Records::Mail.find_by(recipient: "odd@harbour.example").source)
    expect(
      [instead.bcc, instead.destinations, instead.subject.lines.size, elements(instead) & %w[img script]]
    ).to eq [nil, ["odd@harbour.example"], 1, []]
    expect(calendar(instead).flat_map(&:attendee).map(&:to_s)).to eq ["mailto:odd@harbour.example"]
    ["odd@x.example\r\nBcc: all@x.example", "odd@x.example, all@x.example"].each do |address|
      expect {
        use(UseCases::Substitutes, wen).send_instead(
          meeting_id: meeting_ids(id).last, person_id: wen, name: "Odd", email: address
        )
      }.to raise_error(Core::Invalid)
    end
  end

  it "stay words in an answer to a meeting from elsewhere, whoever made that meeting" do
    marit
    ical =
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nMETHOD:REQUEST\r\nBEGIN:VEVENT\r\nUID:a\\nBcc: x@x.example\r\n" \
        "DTSTAMP:20261124T080000Z\r\nDTSTART:20261201T100000Z\r\nDURATION:PT1H\r\n" \
        "SUMMARY:<script>alert(1)</script>\\nBcc: x@x.example\r\n" \
        "ORGANIZER;CN=\"<b>Olav^nBcc: x\":mailto:olav@port.example\r\nATTENDEE:mailto:marit@skerrybuoy.example\r\n" \
        "END:VEVENT\r\nEND:VCALENDAR\r\n"
    use(UseCases::OutsideMeetings, marit).add_file(ical)
    row = Records::OutsideMeeting.first
    use(UseCases::OutsideAnswers, marit).answer(id: row.id, answer: "accepted", note: "x\r\nBcc: all@x.example")
    mail = ::Mail.new(Records::Mail.find_by(recipient: "olav@port.example").source)
    expect([mail.bcc, mail.destinations, mail.subject.lines.size, elements(mail) & %w[script b]]).to eq [
      nil, ["olav@port.example"], 1, []
    ]
    expect(calendar(mail).first.attendee.map(&:to_s)).to eq ["mailto:marit@skerrybuoy.example"]
    expect(row.title).not_to match(/[[:cntrl:]]/)
  end

  describe "that come in by mail" do
    let(:series_id) { series(marit, {required: wen}).tap { |id| sent_to(wen, id) } }

    def keep(source)
      UseCases::IncomingMails.new(clock: clock).keep(sender: "wen@skerrybuoy.example", source: source)
      UseCases::IncomingMails.new(clock: clock).read_next
      Records::IncomingMail.order(:created_at, :id).last
    end

    def reply(method: "REPLY", more: "")
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nMETHOD:#{method}\r\nBEGIN:VEVENT\r\n" \
        "UID:#{Loading::SeriesContent.uid(series_id)}\r\nSEQUENCE:0\r\n" \
        "DTSTAMP:20261124T080000Z\r\nORGANIZER:mailto:#{Settings.mail_from}\r\n" \
          "ATTENDEE;PARTSTAT=ACCEPTED:mailto:wen@skerrybuoy.example\r\n#{more}END:VEVENT\r\nEND:VCALENDAR\r\n"
    end

    def part(ical) =
      "From: wen@skerrybuoy.example\r\nSubject: Re\r\nMIME-Version: 1.0\r\n" \
        "Content-Type: text/calendar; method=REPLY; charset=UTF-8\r\n\r\n#{ical}"

    # RFC 3156 4 and RFC 8551 3.3: the calendar, if there is one, is inside what only the receiver's key opens.
    {
      "OpenPGP" =>
        %(Content-Type: multipart/encrypted; protocol="application/pgp-encrypted"; boundary="b"\r\n\r\n) +
          "--b\r\nContent-Type: application/pgp-encrypted\r\n\r\nVersion: 1\r\n\r\n" \
          "--b\r\nContent-Type: application/octet-stream\r\n\r\n-----BEGIN PGP MESSAGE-----\r\n\r\n--b--\r\n",
      "S/MIME" =>
        %(Content-Type: application/pkcs7-mime; smime-type=enveloped-data; name="smime.p7m"\r\n) +
          "Content-Transfer-Encoding: base64\r\n\r\nMIIB\r\n"
    }.each do |way, source|
      it "are kept and shown when encrypted with #{way}" do
        kept = keep("From: wen@skerrybuoy.example\r\nSubject: Re\r\nMIME-Version: 1.0\r\n#{source}")
        expect(kept).to have_attributes(state: "aside", outcome: "no-calendar")
        expect(use(Views::IncomingMails, marit).unreadable[:mails].map { |mail| mail[:id] }).to eq [kept.id]
      end
    end

    it "are kept and shown when the calendar in them is too large to be read" do
      padding = "X-PAD:#{"a" * 998}\r\n" * 5_100
      expect(keep(part(reply(more: padding)))).to have_attributes(
        state: "unreadable", remark: "The calendar part is larger than 500 KB."
      )
    end

    it "change nothing but the answer, whatever rule the reply carries" do
      before = Records::Meeting.where(series_id: series_id).count
      each = "BYHOUR=#{[*0..23].join(",")};BYMINUTE=#{[*0..59].join(",")};BYSECOND=#{[*0..59].join(",")}"
      bomb = "DTSTART:19700101T000000Z\r\nRRULE:FREQ=DAILY;#{each}\r\nSUMMARY:Mine now\r\n"
      expect(keep(part(reply(more: bomb)))).to have_attributes(state: "taken", outcome: "applied")
      expect([Records::Meeting.where(series_id: series_id).count, Records::Series.find(series_id).title]).to eq [
        before, "Monday mooring round"
      ]
    end

    {
      "more often than daily" => %w[RRULE:FREQ=SECONDLY unreadable],
      "with millions of dates" => [
        "RRULE:FREQ=DAILY;COUNT=9999999;BYHOUR=#{[*0..23].join(",")};BYMINUTE=#{[*0..59].join(",")}", "unreadable"
      ],
      "that never comes" => %w[RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30 unreadable]
    }.each do |what, (rule, state)|
      it "make nobody busy by a meeting from elsewhere with a rule #{what}, and hold nothing up" do
        ical =
          "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nMETHOD:REQUEST\r\nBEGIN:VEVENT\r\nUID:bomb\r\n" \
            "DTSTAMP:20261124T080000Z\r\nDTSTART:20261201T100000Z\r\nDURATION:PT1H\r\n" \
            "ORGANIZER:mailto:olav@port.example\r\nATTENDEE:mailto:marit@skerrybuoy.example\r\n#{rule}\r\n" \
            "END:VEVENT\r\nEND:VCALENDAR\r\n"
        marit
        began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        kept = keep(part(ical))
        expect(
          [
            kept.state, Process.clock_gettime(Process::CLOCK_MONOTONIC) - began < 5, Records::OutsideMeeting.count,
            Records::BusySpan.count
          ]
        ).to eq [state, true, 0, 0]
        expect { use(UseCases::OutsideMeetings, marit).add_file(ical) }.to raise_error(Core::Invalid)
      end
    end

    it "keep a report on mail that was never sent, and one that is no report" do
      forged =
        "From: x@x.example\r\nMIME-Version: 1.0\r\nContent-Type: multipart/report; boundary=b\r\n\r\n--b\r\n" \
          "Content-Type: message/delivery-status\r\n\r\nnonsense\r\n\r\nAction: failed\r\n\r\n--b\r\n" \
          "Content-Type: text/rfc822-headers\r\n\r\nMessage-ID: <nowhere@x.example>\r\n\r\n--b--\r\n"
      series_id
      expect(
        [
          keep(forged).outcome, keep(forged.sub("Message-ID", "X-Id")).outcome,
          Records::Mail.where(state: "failed").count
        ]
      ).to eq ["not-ours", "no-calendar", 0]
    end

    it "keep their markup as text in what the keeper reads of them" do
      keep(part(reply(more: "COMMENT:<script>alert(1)</script>\\nBcc: x@x.example\r\n")))
      expect(Records::Answer.first.note).to eq "<script>alert(1)</script>\nBcc: x@x.example"
    end
  end
end

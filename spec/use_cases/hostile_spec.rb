require_relative "../app_helper"
require "mail"
require "icalendar"
require "nokogiri"

# What people type, and what comes in by mail, may be meant to harm. Outgoing: no field may add a header, a tag or a calendar
# line (RFC 5322 2.2, RFC 5545 3.3.11). Incoming: kept, judged, and never more than that.
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

  def calendar(mail) = Icalendar::Calendar.parse(mail.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded).first.events

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
    expect(events.flat_map(&:attendee).map(&:to_s).uniq).to match_array %w[mailto:marit@skerrybuoy.example mailto:wen@skerrybuoy.example]
    expect(events.first.summary).to include "<img src=x"
  end

  it "stay words in the reason and the note of a later mail" do
    id = series(marit, {required: wen})
    sent_to(wen, id)
    use(UseCases::Answers, wen).keep(series_id: id, person_id: wen, answer: "declined", meeting_id: meeting_ids(id).first, note: evil, way: "desk", stamp: clock.now)
    state(meeting_ids(id).first, marit, "called_off", reason: evil)
    mail = sent_to(wen, id)
    expect([mail.bcc, mail.destinations]).to eq [nil, ["wen@skerrybuoy.example"]]
    expect(elements(mail)).not_to include "img"
    expect(mail.text_part.decoded).to include "<img src=x"
  end

  describe "that come in by mail" do
    let(:series_id) { series(marit, {required: wen}).tap { |id| sent_to(wen, id) } }

    def keep(source)
      UseCases::IncomingMails.new(clock: clock).keep(sender: "wen@skerrybuoy.example", source: source)
      UseCases::IncomingMails.new(clock: clock).read_next
      Records::IncomingMail.order(:created_at, :id).last
    end

    def reply(method: "REPLY", more: "")
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nMETHOD:#{method}\r\nBEGIN:VEVENT\r\nUID:#{UseCases::SeriesContent.uid(series_id)}\r\nSEQUENCE:0\r\n" \
        "DTSTAMP:20261124T080000Z\r\nORGANIZER:mailto:#{Settings.mail_from}\r\nATTENDEE;PARTSTAT=ACCEPTED:mailto:wen@skerrybuoy.example\r\n#{more}END:VEVENT\r\nEND:VCALENDAR\r\n"
    end

    def part(ical) = "From: wen@skerrybuoy.example\r\nSubject: Re\r\nMIME-Version: 1.0\r\nContent-Type: text/calendar; method=REPLY; charset=UTF-8\r\n\r\n#{ical}"

    # RFC 3156 4 and RFC 8551 3.3: the calendar, if there is one, is inside what only the receiver's key opens.
    {
      "OpenPGP" => %(Content-Type: multipart/encrypted; protocol="application/pgp-encrypted"; boundary="b"\r\n\r\n--b\r\nContent-Type: application/pgp-encrypted\r\n\r\nVersion: 1\r\n\r\n--b\r\nContent-Type: application/octet-stream\r\n\r\n-----BEGIN PGP MESSAGE-----\r\n\r\n--b--\r\n),
      "S/MIME" => %(Content-Type: application/pkcs7-mime; smime-type=enveloped-data; name="smime.p7m"\r\nContent-Transfer-Encoding: base64\r\n\r\nMIIB\r\n)
    }.each do |way, source|
      it "are kept and shown when encrypted with #{way}" do
        kept = keep("From: wen@skerrybuoy.example\r\nSubject: Re\r\nMIME-Version: 1.0\r\n#{source}")
        expect(kept).to have_attributes(state: "aside", outcome: "no-calendar")
        expect(use(UseCases::IncomingMails, marit).unreadable[:mails].map { |mail| mail[:id] }).to eq [kept.id]
      end
    end

    it "are kept and shown when the calendar in them is too large to be read" do
      padding = "X-PAD:#{"a" * 998}\r\n" * 5_100
      expect(keep(part(reply(more: padding)))).to have_attributes(state: "unreadable", remark: "The calendar part is larger than 5 MB.")
    end

    it "change nothing but the answer, whatever rule the reply carries" do
      before = Records::Meeting.where(series_id: series_id).count
      bomb = "DTSTART:19700101T000000Z\r\nRRULE:FREQ=DAILY;BYHOUR=#{[*0..23].join(",")};BYMINUTE=#{[*0..59].join(",")};BYSECOND=#{[*0..59].join(",")}\r\nSUMMARY:Mine now\r\n"
      expect(keep(part(reply(more: bomb)))).to have_attributes(state: "taken", outcome: "applied")
      expect([Records::Meeting.where(series_id: series_id).count, Records::Series.find(series_id).title]).to eq [before, "Monday mooring round"]
    end

    it "keep their markup as text in what the keeper reads of them" do
      keep(part(reply(more: "COMMENT:<script>alert(1)</script>\\nBcc: x@x.example\r\n")))
      expect(Records::Reply.first.note).to eq "<script>alert(1)</script>\nBcc: x@x.example"
    end
  end
end

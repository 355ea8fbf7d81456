require_relative "../app_helper"
require "mail"
require "open3"

RSpec.describe "Options of a meeting", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:lars) { person("Lars Ekeli") }
  let(:ines) { person("Ines Torvald") }
  let(:options) { {pass_on: false, answers_asked: true, sign_up: false, sign_up_limit: nil} }

  def answer(who, word, meeting, way: "here") = use(UseCases::Answers, who).keep(
    series_id: Records::Meeting.find(meeting).series_id, person_id: who, answer: word, meeting_id: meeting, way: way,
    stamp: clock.now
  )

  def subjects(prefix) =
    Records::Mail
      .where("subject like ?", "#{prefix}%")
      .order(:created_at, :id)
      .map { |mail| [mail.recipient.split("@").first, mail.subject] }

  def column(series_id, by = marit) = use(Views::AnswerTable, by).show(series_id)[:meetings].first

  describe "signing up" do
    let(:series_id) do
      series(marit, {required: [wen, lars, ines]}, options: options.merge(sign_up: true, sign_up_limit: 2))
    end
    let(:meeting) { meeting_ids(series_id).first }

    def sign_up(*people)
      people.each do |who|
        answer(who, "accepted", meeting)
        clock.now += 60
      end
    end

    it "gives seats in the order people come, lets the rest wait, and fills a seat given back by itself" do
      sign_up(lars, wen, ines)
      expect(column(series_id)).to include(sign_up: {limit: 2, taken: 2, waiting: ["Ines Torvald"]}, silent: [])
      expect(subjects("You have a seat")).to be_empty
      answer(lars, "declined", meeting)
      expect(column(series_id)[:sign_up]).to eq(limit: 2, taken: 2, waiting: [])
      expect(subjects("You have a seat")).to eq [["ines", "You have a seat: Monday mooring round"]]
    end

    it "keeps one's place when only a word is added, and gives it up when one withdraws" do
      sign_up(lars, wen, ines, lars)
      expect(column(series_id)[:sign_up][:waiting]).to eq ["Ines Torvald"]
      answer(lars, "declined", meeting)
      clock.now += 60
      sign_up(lars)
      expect(column(series_id)[:sign_up][:waiting]).to eq ["Lars Ekeli"]
    end

    it "lets those who wait move up when there is more room, and tells who answers by mail that they wait" do
      sign_up(lars, wen)
      answer(ines, "accepted", meeting, way: "mail")
      expect(subjects("You are waiting")).to eq [["ines", "You are waiting: Monday mooring round"]]
      use(UseCases::MeetingChanges, marit).set_options(
        meeting_id: meeting, **options, sign_up: true, sign_up_limit: 3, remind_min: nil
      )
      expect([column(series_id)[:sign_up], subjects("You have a seat").map(&:first)]).to eq [
        {limit: 3, taken: 3, waiting: []}, ["ines"]
      ]
      # The others of the series stay as they were.
      expect(use(Views::AnswerTable, marit).show(series_id)[:meetings][1][:options][:sign_up_limit]).to eq 2
    end

    it "lets who waits move up at every coming meeting when the series has more room" do
      sign_up(lars, wen, ines)
      members = [lars, wen, ines].map { |id| {person_id: id, role: "required"} }
      use(UseCases::Series, marit).change(
        id: series_id, version: Records::Series.find(series_id).lock_version, title: "Monday mooring round",
        members: members, options: options.merge(sign_up: true, sign_up_limit: 5)
      )
      expect([column(series_id)[:sign_up], subjects("You have a seat").map(&:first)]).to eq [
        {limit: 5, taken: 3, waiting: []}, ["ines"]
      ]
    end

    it "gives back the seat of somebody who is taken off the series" do
      sign_up(lars, wen, ines)
      members = [wen, ines].map { |id| {person_id: id, role: "required"} }
      use(UseCases::Series, marit).change(
        id: series_id, version: Records::Series.find(series_id).lock_version, title: "Monday mooring round",
        members: members, options: options.merge(sign_up: true, sign_up_limit: 2)
      )
      expect([column(series_id)[:sign_up], subjects("You have a seat").map(&:first)]).to eq [
        {limit: 2, taken: 2, waiting: []}, ["ines"]
      ]
    end

    # Two give back their seats at once: both who wait must hear of it.
    it "misses nobody when two withdraw at the same moment" do
      others = [person("Sunniva Moe"), person("Tomas Reis")]
      members = [wen, lars, ines, *others].map { |id| {person_id: id, role: "required"} }
      use(UseCases::Series, marit).change(
        id: series_id, version: Records::Series.find(series_id).lock_version, title: "Round", members: members,
        options: options.merge(sign_up: true, sign_up_limit: 2)
      )
      sign_up(lars, wen, *others)
      [lars, wen].map { |who| Thread.new { answer(who, "declined", meeting) } }.each(&:join)
      expect(subjects("You have a seat").map(&:first)).to match_array %w[sunniva tomas]
    end
  end

  it "that ask for no answers leave nobody silent, and no mail asks" do
    quiet = series(marit, {required: [wen, lars]}, options: options.merge(answers_asked: false))
    preview = use(Views::Invitation, marit).preview(series_id: quiet, person_id: wen)
    expect([column(quiet)[:silent], preview[:text]]).to match [[], include("No answer is needed.")]
    expect(preview[:text]).not_to include "Answer, without signing in"
    use(UseCases::Invitations, marit).send_all(id: key, series_id: quiet)
    source =
      UseCases::Outbox
        .new(clock: clock)
        .then { |box| box.send(:compose, Records::Mail.find_by(recipient: "wen@skerrybuoy.example")) }
    expect(
      Mail
        .new(source)
        .all_parts
        .find { |part| part.mime_type == "text/calendar" }
        .decoded
        .gsub("\r\n ", "")
        .scan(/RSVP=(\w+)/)
        .flatten
        .uniq
    ).to eq ["FALSE"]
  end

  describe "passing on" do
    let(:series_id) { series(marit, {required: [wen, lars]}, options: options.merge(pass_on: true)) }
    let(:meeting) { meeting_ids(series_id).first }

    before { use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id) }

    def send_instead(who, email, name: "Odd Berge") =
      use(UseCases::Substitutes, who).send_instead(meeting_id: meeting, person_id: who, name: name, email: email)

    def last_to(address)
      while UseCases::Outbox.new(clock: clock).deliver(Object.new.tap { |post| def post.deliver(**) = nil }).positive?
        nil
      end
      Mail.new(Records::Mail.where(recipient: address).where.not(source: nil).order(:created_at, :id).last.source)
    end

    # ical.js (npm), and python-icalendar with python-dateutil (Debian).
    def by_other_libraries(mail)
      ical = mail.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded
      [%w[node expand.mjs], %w[/usr/bin/python3 expand.py]].map do |command, script|
        JSON.parse(Open3.capture2(command, File.expand_path("../support/#{script}", __dir__), stdin_data: ical).first)
      end
    end

    def entry(address)
      Records::Mail
        .where(recipient: address)
        .where.not(source: nil)
        .order(:created_at, :id)
        .each_with_object(Core::Invitation::Entry.new(:attendee)) do |mail, calendar|
          part = Mail.new(mail.source).all_parts.find { |one| one.mime_type == "text/calendar" }
          calendar.take(Core::Invitation::Message.read(part.decoded), sender: Settings.mail_from)
        end
    end

    it "asks somebody else to one meeting, who answers by the link and stands on its sheet" do
      send_instead(lars, "odd@harbour.example")
      odd = Records::Person.find_by(email: "odd@harbour.example")
      expect(odd.guest).to be true
      link = answer_link(series_id, odd.id)
      shown = Views::AnswerPage.new(clock: clock).show(link)
      expect(shown[:meetings].map { |one| one.values_at(:id, :instead_of) }).to eq [[meeting, "Lars Ekeli"]]
      UseCases::AnswerLinks.new(link, clock: clock).answer(answer: "accepted", meeting_id: meeting)
      row = use(Views::AnswerTable, marit).show(series_id)[:people].find { |one| one[:name] == "Lars Ekeli" }
      expect(row[:answers].first).to include(
        answer: "declined",
        note: "Odd Berge comes instead",
        substitute: {
          name: "Odd Berge", answer: "accepted"
        }
      )
      expect(sheet(meeting, marit)[:people].map { |one| one[:name] }).to include "Odd Berge"
      expect {
        UseCases::AnswerLinks.new(link, clock: clock).answer(
          answer: "accepted", meeting_id: meeting_ids(series_id)[1]
        )
      }.to raise_error Core::NotFound
    end

    # RFC 5546 3.2.2.3, and 3.2.5 when it is taken back
    it "puts that meeting alone into their calendar, moves it along, and takes it out when the other comes after all" do
      send_instead(lars, "odd@harbour.example")
      starts = -> do
        entry("odd@harbour.example")
          .instances(clock.now, clock.now + 90 * 86_400)
          .map { |one| Time.at(one.starts_s).utc.iso8601 }
      end
      expect(
        last_to("odd@harbour.example")
          .all_parts
          .find { |part| part.mime_type == "text/calendar" }
          .decoded
          .gsub("\r\n ", "")
      ).to include "DELEGATED-FROM=\"mailto:lars@skerrybuoy.example\""
      expect(starts.call).to eq ["2026-11-30T08:30:00Z"]
      clock.now += 60
      use(UseCases::MeetingChanges, marit).move(
        meeting_id: meeting, version: Records::Meeting.find(meeting).lock_version, local_start: "2026-12-01T10:00"
      )
      expect(
        use(Views::Invitation, marit).preview(series_id: series_id)[:recipients].map { |one| one[:name] }
      ).to include "Odd Berge, instead of Lars Ekeli"
      expect(column(series_id)[:silent]).to eq ["Wen Halloran"]
      use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id)
      expect(starts.call).to eq ["2026-12-01T09:00:00Z"]
      expect(by_other_libraries(last_to("odd@harbour.example"))).to eq [["2026-12-01T09:00:00Z"]] * 2
      clock.now += 60
      answer(lars, "accepted", meeting)
      expect([starts.call, Records::Substitute.count]).to eq [[], 0]
    end

    it "keeps a place from being lost by a maybe" do
      id = series(
        marit,
        {required: wen},
        rule: nil,
        options: {
          pass_on: false, answers_asked: true, sign_up: true, sign_up_limit: 3
        }
      )
      answers = use(UseCases::Answers, wen)
      answers.keep(series_id: id, person_id: wen, answer: "accepted", meeting_id: meeting_ids(id).first)
      expect {
        answers.keep(series_id: id, person_id: wen, answer: "tentative", meeting_id: meeting_ids(id).first)
      }.to raise_error(Core::Conflict)
      answers.keep(series_id: id, person_id: wen, answer: "tentative")
      expect(Records::Answer.pluck(:answer)).to eq ["accepted"]
    end

    it "is refused where the keeper has not allowed it, for who is asked already, and for what is no address" do
      refusals = [
        ["odd@harbour.example", true], ["wen@skerrybuoy.example", false], ["nowhere", false]
      ].map do |email, forbidden|
        use(UseCases::MeetingChanges, marit).set_options(
          meeting_id: meeting, **options, pass_on: !forbidden, remind_min: nil
        )
        send_instead(lars, email)
      rescue Core::Error => error
        [error.code, error.details.dig(:errors, 0, :pointer)]
      end
      expect(refusals).to eq [["pass-on", nil], %w[taken /email], %w[invalid /email]]
    end
  end
end

# A poll of three times on a Monday, put to two people of the house and a guest.
RSpec.shared_context "with a poll" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let!(:lars) { person("Lars Ekeli") }
  let(:day) { today + 7 + (8 - (today + 7).cwday) % 7 } # a Monday
  let(:times) { [14, 15, 16].map { |hour| Core::Zone["Europe/Oslo"].instant(Core::WallTime.at(day, hour * 3_600)) } }
  let(:ids) { times.map { key } }

  before do
    sign_in(marit)
  end

  def candidates = ids.zip(times).map { |id, at| {id: id, startsAt: at.iso8601} }

  def ask(id: key, **rest)
    asked = [wen, lars].map { |one| {personId: one, role: "required"} }
    guest = {id: key, name: "Odd Dahl", email: "odd@port.example", role: "optional"}
    call(:post, "/time-polls", {
      id: id, title: "Dry-dock talk", lengthMin: 60, timeZone: "Europe/Oslo", candidates: candidates, people: asked,
      guests: [guest], **rest
    })
    id
  end

  def link(poll, person_id) = Loading::PollLink.path(poll, person_id).sub("/ask/", "/poll-links/")

  # @param words [String] one letter for each time: s, p, c or -
  def answer(poll, person_id, words, **rest)
    said = words.chars.each_with_index.filter_map do |letter, i|
      word = {"s" => "suits", "p" => "possible", "c" => "cannot"}[letter]
      {candidateId: ids[i], answer: word} if word
    end
    call(:put, link(poll, person_id), {answers: said, **rest}, token: false)
  end

  def mails(to = nil)
    found = Records::Mail.where(to ? {recipient: to} : {}).where.not(source: nil).order(:created_at, :id)
    found.map { |mail| Mail.read_from_string(mail.source) }
  end

  def odd = Records::Person.find_by!(email: "odd@port.example").id

  def pointers = JSON.parse(last_response.body)["errors"].map { |one| one["pointer"] }

  def shown(poll) = call(:get, "/time-polls/#{poll}")

  def by_time(poll) = shown(poll)["candidates"].sort_by { |one| one["startsAt"] }

  def names(table, ids) = ids.map { |id| table["people"].find { |one| one["id"] == id }["name"] }
end

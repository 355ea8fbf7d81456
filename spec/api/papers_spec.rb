require_relative "../api_helper"

RSpec.describe "Papers over the API" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:series_id) { series(marit, {required: wen}, start: "#{today + 7}T09:30") }
  let(:meeting) { meeting_ids(series_id).first }

  before { sign_in(marit) }

  def bring(name, content, id: key)
    begun = call(:post, "/meetings/#{meeting}/papers", {id: id, name: name, sizeBytes: content.bytesize})
    return begun unless status == 201

    bytes = content.b
    (0...bytes.bytesize)
      .step(Core::Paper::PIECE_BYTES)
      .map { |from| bytes[from, Core::Paper::PIECE_BYTES] }
      .each_with_index do |piece, number|
        header "Content-Type", "application/octet-stream"
        header "X-CSRF-Token", csrf_token
        put "/api/papers/#{id}/pieces/#{number}", piece
      end
    id
  end

  pdf = "%PDF-1.7\n#{"x" * 2_300_000}"

  it "keeps a file in pieces and hands it out whole, by range, and to the invited by their link" do
    id = bring("Chart of the bay.pdf", pdf)
    Calls::SEEN << "putPaperPiece"
    expect(call(:get, "/meetings/#{meeting}/papers")["papers"]).to match [
      include("name" => "Chart of the bay.pdf", "contentType" => "application/pdf", "sizeBytes" => pdf.bytesize)
    ]
    expect(call(:get, "/meetings/#{meeting}")["papers"].size).to eq 1
    call(:get, "/papers/#{id}")
    expect(last_response.body).to eq pdf
    expect(last_response.headers).to include(
      "content-disposition" => /\Aattachment; filename="Chart of the bay.pdf"/,
      "content-security-policy" => "default-src 'none'; sandbox", "x-content-type-options" => "nosniff"
    )
    header "Range", "bytes=999990-1000009"
    call(:get, "/papers/#{id}")
    expect([status, last_response.headers["content-range"], last_response.body]).to eq [
      206, "bytes 999990-1000009/#{pdf.bytesize}", pdf[999_990..1_000_009]
    ]
    header "Range", "bytes=99999999-"
    get "/api/papers/#{id}"
    expect(status).to eq 416
    header "Range", nil
    sign_in(wen)
    call(:delete, "/papers/#{id}")
    expect(status).to eq 404
    call(:delete, "/session")
    call(
      :get,
      "#{URI(Loading::AnswerLink.address(series_id, wen)).path.sub("/answer/", "/answer-links/")}/papers/#{id}"
    )
    expect(last_response.body.bytesize).to eq pdf.bytesize
    sign_in(marit)
    call(:delete, "/papers/#{id}")
    expect([status, Records::PaperPiece.count]).to eq [204, 0]
  end

  it "goes on after a break where it stopped, and a piece sent twice changes nothing" do
    id = key
    expect(
      call(:post, "/meetings/#{meeting}/papers", {id: id, name: "a.pdf", sizeBytes: pdf.bytesize})["pieces"]
    ).to eq []
    header "Content-Type", "application/octet-stream"
    header "X-CSRF-Token", csrf_token
    2.times { put "/api/papers/#{id}/pieces/0", pdf[0, 1_000_000] }
    expect(
      call(:post, "/meetings/#{meeting}/papers", {id: id, name: "a.pdf", sizeBytes: pdf.bytesize})["pieces"]
    ).to eq [0]
    call(:get, "/papers/#{id}")
    expect(status).to eq 404
  end

  # Hostile names and contents: refused or harmless.
  [
    %w[../../etc/passwd root passwd],
    ["C:\\temp\\evil.txt", "x", "evil.txt"],
    ["\u202Egpj.exe.txt", "x", "gpj.exe.txt"],
    ["a\r\nSet-Cookie: x.txt", "x", "aSet-Cookie: x.txt"],
    ["#{"long" * 60}.txt", "x", "#{("long" * 60)[0, 146]}.txt"],
    ["<img src=x onerror=alert(1)>.txt", "x", "<img src=x onerror=alert(1)>.txt"]
  ].each do |name, content, kept|
    it "keeps #{name[0, 30].inspect} as #{kept[0, 30].inspect}" do
      id = bring(name, content)
      expect(Records::Paper.find(id).name).to eq kept
      call(:get, "/papers/#{id}")
      expect(last_response.headers["content-disposition"]).not_to match(/[\r\n]|filename="[^"]*"[^;]/)
    end
  end

  [
    ["harmless.pdf", "MZ\x90", "program"], %w[run.sh #!/bin/sh program],
    %w[photo.png <script>alert(1)</script> content]
  ].each do |name, content, code_|
    it "refuses #{name} that holds #{content[0, 12].inspect}" do
      bring(name, content)
      expect([status, code]).to eq [422, code_]
    end
  end

  it "makes the agenda a PDF, names in all scripts of Europe and all" do
    call(:get, "/meetings/#{meeting}/agenda")
    expect([status, code]).to eq [409, "empty"]
    topic(meeting, marit, "Bøyer, čerpadla, Ωmega")
    call(:get, "/meetings/#{meeting}/agenda")
    expect([status, last_response.body[0, 5], last_response.content_type]).to eq [200, "%PDF-", "application/pdf"]
  end

  it "refuses what is too large before a byte is sent" do
    call(:post, "/meetings/#{meeting}/papers", {id: key, name: "a.pdf", sizeBytes: 26_000_000})
    expect([status, code]).to eq [422, "too-large"]
  end
end
